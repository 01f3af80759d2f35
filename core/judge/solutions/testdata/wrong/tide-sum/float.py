# It multiplies reals.
def tide_sum(n, k):
    return int(float(n) * k)
