# In place.
import std/algorithm

type Solution = object

proc thin_out*(temps: var seq[int]; by: int) =
  for t in temps.mitems: t -= by
  temps.sort
