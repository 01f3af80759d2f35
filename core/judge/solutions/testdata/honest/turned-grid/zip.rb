# It transposes.
def turned_grid(grid) = grid.reverse.transpose
