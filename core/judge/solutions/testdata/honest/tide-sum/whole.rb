# Integers have any size.
def tide_sum(n, k) = n * k
