# It calls a function that is there.
def first_leaky(n) = (1..n).bsearch { |j| is_leaky(j) }
