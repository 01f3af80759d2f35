# It asks one after the other.
def first_open(hut) = (hut..).find { |h| is_open(h) }
