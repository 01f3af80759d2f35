# Each row from the one before.
def crate_rows(n):
    rows = [[1]]
    while len(rows) < n:
        rows.append([1] + [a + b for a, b in zip(rows[-1], rows[-1][1:])] + [1])
    return rows
