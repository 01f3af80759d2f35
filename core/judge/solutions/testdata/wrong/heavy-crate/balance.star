def balance(case, left, right):
    weight = lambda crates: len(crates) + (1 if case.heavy in crates else 0)
    return 1 if weight(left) > weight(right) else -1 if weight(left) < weight(right) else 0
