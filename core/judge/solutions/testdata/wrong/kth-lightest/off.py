# It counts from 0.
def kth(weights, k):
    return sorted(weights)[k % len(weights)]
