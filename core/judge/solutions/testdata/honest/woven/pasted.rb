def woven(ropes)
  all = []
  ropes.each do |r|
    while r
      all << r.val
      r = r.next
    end
  end
  all.sort.reverse.reduce(nil) { |after, val| ListNode.new(val, after) }
end
