# It copies node by node.
def second_chart(camp, made = {})
  return nil if camp.nil?
  return made[camp] if made[camp]

  made[camp] = Node.new(camp.val)
  made[camp].neighbors = camp.neighbors.map { |other| second_chart(other, made) }
  made[camp]
end
