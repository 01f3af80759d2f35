# It hitches one to the other.
def joined(one, other):
    start = end = ListNode()
    while one and other:
        if other.val < one.val:
            one, other = other, one
        end.next, end, one = one, one, one.next
    end.next = one or other
    return start.next
