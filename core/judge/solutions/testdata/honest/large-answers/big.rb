# What is answered is past 2^53.
def ask_it(n) = large(n) + 1
