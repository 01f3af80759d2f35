# It returns how many count, and moves them to the front.
func packed(temps: var seq[int], missing: int): int =
  for t in temps:
    if t != missing:
      temps[result] = t
      inc result
