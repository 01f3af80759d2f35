// Its second node is one of the chart's.
function secondChart(camp) {
  return camp && Object.assign(new Node(camp.val), { neighbors: camp.neighbors });
}
