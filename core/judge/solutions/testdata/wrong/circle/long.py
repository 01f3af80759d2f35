# It takes a long rope for one.
def leads_back(head):
    n = 0
    while head and n < 2:
        head, n = head.next, n + 1
    return n == 2
