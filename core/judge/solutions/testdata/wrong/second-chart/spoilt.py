# It copies rightly, and takes a road out of the chart.
def second_chart(camp):
    made = {}
    def copy(node):
        if node not in made:
            made[node] = Node(node.val)
            made[node].neighbors = [copy(other) for other in node.neighbors]
        return made[node]
    both = copy(camp) if camp else None
    if camp and camp.neighbors:
        camp.neighbors[0].neighbors.remove(camp)
        camp.neighbors.pop(0)
    return both
