# The same.
def read_manifest(rows, names, big, scale, flag, mark, huge):
    return big + sum(map(sum, rows)), [n + mark for n in names], scale * 2, [r[::-1] for r in rows[::-1]], huge, not flag
