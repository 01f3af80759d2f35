def copied(node)
  made = {}
  walk = lambda do |n|
    made[n] || begin
      made[n] = Node.new(n.val)
      made[n].neighbors = n.neighbors.map { |m| walk.call(m) }
      made[n]
    end
  end
  walk.call(node)
end
