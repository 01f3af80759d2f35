# It asks before there is a case.
known = is_leaky(1)


def first_leaky(n):
    return 1 if known else n
