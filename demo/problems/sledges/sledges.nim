# The same in Nim.
import std/[algorithm, sequtils, strutils]

let numbers = stdin.readAll.splitWhitespace.map(parseBiggestInt)
let n = int(numbers[0])
let capacity = numbers[1]
var weights = numbers[2 ..< 2 + n]
weights.sort()
var light = 0
var heavy = n - 1
var sledges = 0
while light <= heavy:
  if light < heavy and weights[light] + weights[heavy] <= capacity:
    inc light
  dec heavy
  inc sledges
echo sledges
