# It hitches one behind the other.
def joined(one, other):
    if not one:
        return other
    end = one
    while end.next:
        end = end.next
    end.next = other
    return one
