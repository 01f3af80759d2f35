def reversed_rope(head):
    if head: head.next.next = head
    return head
