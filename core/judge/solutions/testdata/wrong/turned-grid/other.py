# It turns the other way.
def turned_grid(grid):
    return [list(row) for row in zip(*grid)][::-1]
