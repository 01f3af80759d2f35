# It takes the sign for a digit.
def digit_sum(n):
    s = 0
    while n:
        s += n % 10
        n = int(n / 10)
    return s
