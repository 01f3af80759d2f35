def heavy_crate(n):  # forgets the one that is left over
    low, high = 0, n
    while high - low > 1:
        half = (high - low) // 2
        said = balance(list(range(low, low + half)), list(range(low + half, low + 2 * half)))
        low, high = (low, low + half) if said >= 0 else (low + half, low + 2 * half)
    return low
