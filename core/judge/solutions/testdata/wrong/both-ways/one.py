def turned(head):
    last = None
    while head:
        head.next, last, head = last, head, head.next
    return last
