# A wrong name.
def corners(grid):
    flat = sum(grid, [])
    return {"lowest": min(flat, default=None), "total": sum(flat), "row": max(grid, key=sum, default=[]), "warm": max(flat, default=0) > 0}
