# The library has it.
def coldest_pair(temps) = temps.min(2)
