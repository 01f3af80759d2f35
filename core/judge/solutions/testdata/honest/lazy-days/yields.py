# It is a generator.
def lazy_days(n):
    for i in range(n):
        yield 2 * i + 1
