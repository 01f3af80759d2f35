# It begins behind it.
def first_open(hut) = ((hut + 1)..).find { |h| is_open(h) }
