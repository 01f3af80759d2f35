# It fails when it is gathered.
def lazy_days(n):
    for i in range(n):
        yield (2 * i + 1) // (n - i - 1)
