# As a text.
def digit_sum(n):
    return sum(map(int, str(abs(n))))
