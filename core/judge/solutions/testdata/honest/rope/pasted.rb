# @param {ListNode} head
def reversed_rope(head)
  before = nil
  while head
    head.next, before, head = before, head, head.next
  end
  before
end
