Knot = Struct.new(:data, :nxt)
def reversed_rope(head)
  out = nil
  while head
    out = Knot.new(head.data, out)
    head = head.nxt
  end
  out
end
