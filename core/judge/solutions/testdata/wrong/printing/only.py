# It prints in place of returning.
def loud(n):
    print(n * n)
