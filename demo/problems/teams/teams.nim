# The same in Nim.
import std/[algorithm, sequtils, strutils]

let numbers = stdin.readAll.splitWhitespace.map(parseBiggestInt)
let least = numbers[0]
let n = int(numbers[1])
var weights = numbers[2 ..< 2 + n]
weights.sort()
var light = 0
var heavy = n - 1
var teams = 0
while light < heavy:
  if weights[light] + weights[heavy] >= least:
    dec heavy
    inc teams
  inc light
echo teams
