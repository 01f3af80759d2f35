def copied(node: 'Node') -> 'Node':
    made = {}
    def walk(n):
        if n not in made:
            made[n] = Node(n.val)
            made[n].neighbors = [walk(m) for m in n.neighbors]
        return made[n]
    return walk(node)
