def reversed_rope(head):
    out = []
    while head:
        out.append(head.val)
        head = head.next
    return out
