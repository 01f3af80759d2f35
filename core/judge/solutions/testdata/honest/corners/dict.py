# A dictionary in another order.
def corners(grid):
    flat = sum(grid, [])
    return {"warm": any(t > 0 for t in flat), "row": max(grid, key=sum) if grid else [], "total": sum(flat), "least": min(flat) if flat else None}
