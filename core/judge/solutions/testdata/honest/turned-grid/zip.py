# It zips.
def turned_grid(grid):
    return [list(row) for row in zip(*grid[::-1])]
