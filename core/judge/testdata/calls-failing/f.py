
def deep(n): return deep(n + 1) + 1
def f(k):
    if k == 0:
        return 1 / k # fails here
    if k == 2: exit(0)
    if k == 3: return deep(0)
    return k
