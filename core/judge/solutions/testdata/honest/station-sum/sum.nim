# With a sequence.
import strutils, sequtils
let words = stdin.readAll().splitWhitespace()
stdout.write(words[1 .. ^1].mapIt(it.parseBiggestInt).foldl(a + b, 0'i64))
