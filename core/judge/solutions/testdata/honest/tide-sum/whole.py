# Integers have any size.
def tide_sum(n, k):
    return n * k
