# A copy is changed.
import std/algorithm

proc thinOut(temps: seq[int], by: int) =
  var own = temps
  for t in own.mitems: t -= by
  own.sort
