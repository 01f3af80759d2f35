# What is answered is past 2^53.
def ask_it(n): return large(n) + 1
