# It copies node by node.
class Solution:
    def secondChart(self, camp: Optional['Node']) -> Optional['Node']:
        made = {}
        def copy(node):
            if node not in made:
                made[node] = Node(node.val)
                made[node].neighbors = [copy(other) for other in node.neighbors]
            return made[node]
        return copy(camp) if camp else None
