# All rows are one list.
def crate_rows(n):
    row, rows = [], []
    for i in range(n):
        row.append(1)
        rows.append(row)
    return rows
