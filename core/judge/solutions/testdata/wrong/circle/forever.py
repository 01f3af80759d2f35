# It goes round for ever.
def leads_back(head):
    while head:
        head = head.next
    return False
