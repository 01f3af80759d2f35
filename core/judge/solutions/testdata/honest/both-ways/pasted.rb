def turned(head)
  last = nil
  while head
    head.prev, head.next = head.next, head.prev
    last = head
    head = head.prev
  end
  last
end
