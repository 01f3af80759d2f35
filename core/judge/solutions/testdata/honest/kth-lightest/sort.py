# It sorts.
def kth(weights, k):
    return sorted(weights)[k - 1]
