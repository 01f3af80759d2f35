# It takes each kind of value that every language has.
import std/[algorithm, math, options, sequtils]

proc tallyUp(rows: seq[seq[int]], names: openArray[string], big: int64, scale: float, flag: bool, mark: char, huge: string, maybe: Option[int]): auto =
  var sum = big
  for row in rows: sum += row.sum
  (sum, names.mapIt(it & mark), scale * 2, rows.reversed.mapIt(it.reversed), huge, not flag, maybe.map(proc(x: int): int = x div 2))

when isMainModule:
  quit "nothing to do"
