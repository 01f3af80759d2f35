# It makes a real of it.
def ask_it(n): return int(float(large(n)) + 1)
