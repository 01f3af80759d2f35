def turned(head: 'Optional[Node]') -> 'Optional[Node]':
    last = None
    while head:
        head.prev, head.next = head.next, head.prev
        last, head = head, head.prev
    return last
