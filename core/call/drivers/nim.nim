# Calls the function of @FILE@ for Cold Verdict. Each line of standard input
# after the first holds the arguments of one call, as JSON; the answer to each goes
# to descriptor 3. What the function prints stays what it prints; a mark behind it
# says which call it belongs to.
import @MODULE@ {.all.}
import std/[macros, math, monotimes, options, parseutils, posix, strutils, unicode]

const
  changes = @CHANGES@ # the argument that is the result, from 1; 0: what is returned
  both = @BOTH@ > 0 # what is returned is a result, too
  results = @RESULTS@ # types of what is returned

type
  Misfit = object of CatchableError
  Input = object
    fd: cint
    piece: string
    at, total, parameter: int # the last one from 1

proc peek(r: var Input): char =
  if r.at == r.piece.len:
    r.piece.setLen 65_536
    let n = read(r.fd, addr r.piece[0], 65_536)
    r.piece.setLen max(n, 0)
    r.at = 0
    r.total += max(n, 0)
    if n <= 0: return '\0'
  r.piece[r.at]

proc next(r: var Input): char {.discardable.} =
  result = r.peek
  inc r.at

proc word(r: var Input): string =
  while r.peek in {'0'..'9', 'a'..'z', 'A'..'Z', '-', '+', '.'}: result.add r.next

proc lacks(r: Input, declared, given: string): ref Misfit =
  newException(Misfit, "parameter " & $r.parameter & " is declared as " & declared & ", and the problem gives it " & given)

proc text(r: var Input): string =
  r.next
  while true:
    var c = r.next
    case c
    of '"', '\0': return
    of '\\':
      c = r.next
      case c
      of 'n': result.add '\n'
      of 't': result.add '\t'
      of 'u':
        var code = ""
        for _ in 1..4: code.add r.next
        result.add Rune(parseHexInt(code)).toUTF8
      else: result.add c
    else: result.add c

proc take[T](r: var Input, v: var T) =
  when T is bool: v = r.word == "true"
  elif T is string:
    if r.peek in {'-', '0'..'9'}: v = r.word # an integer of any length
    elif r.peek == '"': v = r.text
    else: raise r.lacks($T, "something else")
  elif T is char or T is Rune:
    if r.peek != '"': raise r.lacks($T, "something else")
    let s = r.text
    when T is char:
      if s.len != 1: raise r.lacks($T, "a character that it does not hold")
      v = s[0]
    else: v = s.runeAt(0)
  elif T is SomeInteger or T is range:
    let s = r.word
    var whole: BiggestInt
    var natural: BiggestUInt
    try:
      if s.len > 0 and s[0] != '-' and parseBiggestUInt(s, natural) == s.len and natural <= T.high.BiggestUInt: v = T(natural)
      elif s.len > 0 and parseBiggestInt(s, whole) == s.len and (when T is SomeUnsignedInt: false else: whole >= T.low.BiggestInt and whole <= T.high.BiggestInt): v = T(whole)
      else: raise r.lacks($T, if s == "": "something else" else: s & ", which it does not hold")
    except ValueError: raise r.lacks($T, s & ", which it does not hold")
  elif T is SomeFloat:
    let s = r.word
    v = T(case s
      of "NaN": NaN
      of "Infinity": Inf
      of "-Infinity": NegInf
      else: parseFloat(s))
  elif T is Option:
    if r.peek == 'n':
      discard r.word
      v = none(typeof(v.get))
    else:
      var one: typeof(v.get)
      r.take one
      v = some(one)
  elif T is seq:
    if r.peek != '[': raise r.lacks($T, "something else")
    r.next
    v = @[]
    while r.peek notin {']', '\0'}:
      if v.len > 0: r.next
      var one: typeof(v[0])
      r.take one
      v.add one
    r.next
  else: {.error: "a parameter is declared as " & $T & ", which arguments of this problem cannot be".}

proc give(b: var string, kind: string, v: auto) =
  let inner = if kind.endsWith("[]") or kind.endsWith("?"): kind[0 ..< kind.len - (if kind[^1] == '?': 1 else: 2)] else: kind
  when v is bool: b.add(if v: "true" else: "false")
  elif v is SomeInteger or v is enum: b.add $v
  elif v is SomeFloat: b.add(if v.classify == fcNan: "NaN" elif v == Inf: "Infinity" elif v == NegInf: "-Infinity" else: formatBiggestFloat(v, ffScientific, 17))
  elif v is string or v is char or v is Rune:
    if kind == "bigint": b.add $v
    else:
      b.add '"'
      for c in $v:
        if c in {'"', '\\'}: b.add "\\" & c
        elif c < ' ': b.add "\\u" & toHex(ord(c), 4)
        else: b.add c
      b.add '"'
  elif v is Option:
    if v.isNone: b.add "null"
    else: b.give inner, v.get
  elif v is tuple:
    var n = 0
    b.add '['
    for one in v.fields:
      if n > 0: b.add ','
      b.give (if n < results.len: results[n] else: ""), one
      inc n
    b.add ']'
  elif compiles(for one in v: discard):
    var n = 0
    b.add '['
    for one in v:
      if n > 0: b.add ','
      inc n
      b.give inner, one
    b.add ']'
  else: {.error: "the result is declared as " & $typeof(v) & ", which results of this problem cannot be".}

var
  streams: array[2, cint]
  token: string
  count: int

proc put(fd: cint, text: string) =
  var at = 0
  while at < text.len:
    let n = write(fd, unsafeAddr text[at], text.len - at)
    if n <= 0: return
    at += n

proc answer(text: string) = put(3, token & " " & $count & " " & text & "\n")

# The mark stands where the call ended: what it returned is written behind it.
var settled: bool
proc settle() =
  if settled: return
  settled = true
  stdout.flushFile
  stderr.flushFile
  for fd in streams: put(fd, "\0" & token & "\n")

proc now(): int64 =
  var t: Timespec
  discard clock_gettime(CLOCK_PROCESS_CPUTIME_ID, t)
  t.tv_sec.int64 * 1_000_000_000 + t.tv_nsec

proc failed(e: ref Exception): string =
  put(streams[1], e.getStackTrace & "Error: unhandled exception: " & e.msg & " [" & $e.name & "]\n")
  "failed"

# serve takes the arguments of one call as they are declared, and calls.
macro serve(f: typed, r, b, began: untyped): untyped =
  var choices: seq[NimNode]
  if f.kind in {nnkClosedSymChoice, nnkOpenSymChoice}:
    for one in f: choices.add one
  else: choices.add f
  var formal: NimNode
  for one in choices:
    let params = one.getTypeImpl[0]
    var n = 0
    for i in 1 ..< params.len: n += params[i].len - 2
    if n == @COUNT@: formal = params
  if formal == nil: error("the function takes @COUNT@ arguments in this problem")
  result = newStmtList()
  var args: seq[NimNode]
  for i in 1 ..< formal.len:
    for _ in 0 ..< formal[i].len - 2:
      var kind = formal[i][^2]
      if kind.kind == nnkVarTy: kind = kind[0]
      if kind.kind == nnkBracketExpr and $kind[0] in ["openArray", "varargs"]: kind = nnkBracketExpr.newTree(bindSym"seq", kind[1])
      let arg = genSym(nskVar, "arg")
      let number = newLit(args.len + 1)
      result.add quote do:
        var `arg`: `kind`
        `r`.next
        `r`.parameter = `number`
        take(`r`, `arg`)
      args.add arg
  let name = ident(f.repr.split({'.', '(', ' ', '|'})[0])
  let called = newCall(if f.kind == nnkSym: f else: name, args)
  let changed = if changes > 0: args[changes - 1] else: newEmptyNode()
  result.add quote do:
    begins(`r`)
    `began` = now()
  if formal[0].kind == nnkEmpty or formal[0].eqIdent("void"):
    result.add called
    result.add quote do:
      `began` = now() - `began`
      settle()
    if changes > 0:
      result.add quote do:
        give(`b`, results[0], `changed`)
    else:
      result.add quote do:
        add(`b`, "null")
  else:
    let whole = genSym(nskLet, "whole")
    result.add quote do:
      let `whole` = `called`
      `began` = now() - `began`
      settle()
    if both:
      result.add quote do:
        add(`b`, '[')
        give(`b`, results[0], `whole`)
        add(`b`, ',')
        give(`b`, results[^1], `changed`)
        add(`b`, ']')
    elif changes > 0:
      result.add quote do:
        give(`b`, results[0], `changed`)
    else:
      result.add quote do:
        give(`b`, results[0], `whole`)

var from0: int

proc begins(r: var Input) =
  var c = r.next
  while c notin {'\n', '\0'}: c = r.next
  if r.total - from0 > 100_000: answer("begin")

proc main() =
  var r = Input(fd: fcntl(0, F_DUPFD, 10))
  discard dup2(open("/dev/null", O_RDONLY), 0)
  streams = [fcntl(1, F_DUPFD, 10).cint, fcntl(2, F_DUPFD, 10).cint]
  var first = ""
  while r.peek notin {'\n', '\0'}: first.add r.next
  r.next
  token = first.split(' ')[^1]
  settle()
  answer("ready")
  while r.peek == '[':
    from0 = r.total
    settled = false
    var b, said = ""
    var began: int64 = -1
    try:
      serve(@CALLEE@, r, b, began)
      said = "done " & $began & " " & b
    except Misfit as e:
      said = "misfit 0 " & e.msg
      begins(r)
    except Exception as e:
      said = failed(e) & " " & $(now() - began) & " 1"
    settle()
    answer(said)
    inc count

main()
quit(0)
