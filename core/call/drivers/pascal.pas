{ Reads and writes what a function is called with, for Cold Verdict. Each line of standard
  input after the first holds the arguments of one call, as JSON; the answer to each goes
  to descriptor 3. What the function prints stays what it prints; a mark behind it says
  which call it belongs to. How @FILE@ declares it stands behind its own code. }
{$mode objfpc}{$H+}
unit cold_driver;

interface

type
  EMisfit = class(TObject)
    why: ansistring;
    constructor create(const words: ansistring);
  end;
  TCall = procedure;

procedure ColdServe(call: TCall);
procedure ColdArgument(number: longint; const declared: ansistring);
function ColdMore(n: int64): boolean;
procedure ColdBegin;
procedure ColdReturned;
procedure ColdWord(const text: ansistring);
procedure ColdRead(var v: shortint); overload;
procedure ColdRead(var v: byte); overload;
procedure ColdRead(var v: smallint); overload;
procedure ColdRead(var v: word); overload;
procedure ColdRead(var v: longint); overload;
procedure ColdRead(var v: longword); overload;
procedure ColdRead(var v: int64); overload;
procedure ColdRead(var v: qword); overload;
procedure ColdRead(var v: single); overload;
procedure ColdRead(var v: double); overload;
procedure ColdRead(var v: extended); overload;
procedure ColdRead(var v: boolean); overload;
procedure ColdRead(var v: char); overload;
procedure ColdRead(var v: shortstring); overload;
procedure ColdRead(var v: ansistring); overload;
procedure ColdGive(v: int64); overload;
procedure ColdGive(v: qword); overload;
procedure ColdGive(v: extended); overload;
procedure ColdGive(v: boolean); overload;
procedure ColdGive(v: char); overload;
procedure ColdGive(const v: ansistring); overload;
procedure ColdBigInt(const v: ansistring);

implementation

uses BaseUnix, UnixType, SysUtils, Linux;

var
  fd: longint;
  piece: array[0..65535] of byte;
  at, filled, total, before: int64;
  token, answerText, declaredAs: ansistring;
  answerLength: int64;
  count, parameter: longint;
  began, spent: int64;
  settled: boolean = false;
  streams: array[1..2] of longint;

constructor EMisfit.create(const words: ansistring);
begin
  why := words;
end;

function Peek: longint;
begin
  if at = filled then
  begin
    filled := FpRead(fd, piece, sizeof(piece));
    at := 0;
    if filled <= 0 then
    begin
      filled := 0;
      exit(-1);
    end;
    total := total + filled;
  end;
  result := piece[at];
end;

function Next: longint;
begin
  result := Peek;
  inc(at);
end;

procedure Lacks(const given: ansistring);
begin
  raise EMisfit.create('parameter ' + IntToStr(parameter) + ' is declared as ' + declaredAs + ', and the problem gives it ' + given);
end;

function Word_: ansistring;
begin
  result := '';
  while (Peek >= 0) and (chr(Peek) in ['0'..'9', 'a'..'z', 'A'..'Z', '+', '-', '.']) do result := result + chr(Next);
end;

function Utf8(c: longint): ansistring;
begin
  if c < $80 then result := chr(c)
  else if c < $800 then result := chr($C0 or (c shr 6)) + chr($80 or (c and $3F))
  else result := chr($E0 or (c shr 12)) + chr($80 or ((c shr 6) and $3F)) + chr($80 or (c and $3F));
end;

function Text_: ansistring;
var
  c, i: longint;
  code: ansistring;
begin
  if Peek <> ord('"') then Lacks('something else');
  Next;
  result := '';
  repeat
    c := Next;
    if (c < 0) or (c = ord('"')) then exit;
    if c = ord('\') then
    begin
      c := Next;
      case chr(c) of
        'n': result := result + #10;
        't': result := result + #9;
        'u':
        begin
          code := '$';
          for i := 1 to 4 do code := code + chr(Next);
          result := result + Utf8(StrToInt(code));
        end;
      else
        result := result + chr(c);
      end;
    end
    else
      result := result + chr(c);
  until false;
end;

function Whole(least: int64; most: qword): qword;
var
  s: ansistring;
  i: int64;
  q: qword;
  code: longint;
begin
  s := Word_;
  if s = '' then Lacks('something else');
  if s[1] = '-' then
  begin
    val(s, i, code);
    if (code <> 0) or (i < least) then Lacks(s + ', which it does not hold');
    exit(qword(i));
  end;
  val(s, q, code);
  if (code <> 0) or (q > most) then Lacks(s + ', which it does not hold');
  result := q;
end;

procedure ColdArgument(number: longint; const declared: ansistring);
begin
  Next;
  parameter := number;
  declaredAs := declared;
end;

function ColdMore(n: int64): boolean;
begin
  if n = 0 then
  begin
    if Peek <> ord('[') then Lacks('something else');
    Next;
    result := Peek <> ord(']');
    if not result then Next;
  end
  else
    result := Next = ord(',');
end;

procedure ColdRead(var v: shortint); begin v := shortint(Whole(-128, 127)); end;
procedure ColdRead(var v: byte); begin v := byte(Whole(0, 255)); end;
procedure ColdRead(var v: smallint); begin v := smallint(Whole(-32768, 32767)); end;
procedure ColdRead(var v: word); begin v := word(Whole(0, 65535)); end;
procedure ColdRead(var v: longint); begin v := longint(Whole(low(longint), high(longint))); end;
procedure ColdRead(var v: longword); begin v := longword(Whole(0, high(longword))); end;
procedure ColdRead(var v: int64); begin v := int64(Whole(low(int64), high(int64))); end;
procedure ColdRead(var v: qword); begin v := Whole(0, high(qword)); end;

{ Said reports a real that is no number of digits. }
function Said(const s: ansistring; out v: double): boolean;
begin
  Said := true;
  if s = 'NaN' then v := 0.0 / 0.0
  else if s = 'Infinity' then v := 1.0 / 0.0
  else if s = '-Infinity' then v := -1.0 / 0.0
  else Said := false;
end;

procedure ColdRead(var v: extended);
var
  s: ansistring;
  code: longint;
  d: double;
begin
  s := Word_;
  code := 0;
  if Said(s, d) then v := d else val(s, v, code);
  if code <> 0 then Lacks('something else');
end;

procedure ColdRead(var v: double);
var
  s: ansistring;
  code: longint;
begin
  s := Word_;
  code := 0;
  if not Said(s, v) then val(s, v, code);
  if code <> 0 then Lacks('something else');
end;

procedure ColdRead(var v: single);
var d: double;
begin
  ColdRead(d);
  v := d;
end;

procedure ColdRead(var v: boolean);
var s: ansistring;
begin
  s := Word_;
  if (s <> 'true') and (s <> 'false') then Lacks('something else');
  v := s = 'true';
end;

procedure ColdRead(var v: char);
var s: ansistring;
begin
  s := Text_;
  if length(s) <> 1 then Lacks('a character that it does not hold');
  v := s[1];
end;

procedure ColdRead(var v: ansistring);
begin
  if (Peek >= 0) and (chr(Peek) in ['0'..'9', '-']) then v := Word_ { an integer of any length }
  else v := Text_;
end;

procedure ColdRead(var v: shortstring);
var s: ansistring;
begin
  ColdRead(s);
  if length(s) > 255 then Lacks('a text of ' + IntToStr(length(s)) + ' bytes, which it does not hold');
  v := s;
end;

procedure ColdWord(const text: ansistring);
begin
  if answerLength + length(text) > length(answerText) then setLength(answerText, 2 * (answerLength + length(text)));
  if text <> '' then move(text[1], answerText[answerLength + 1], length(text));
  answerLength := answerLength + length(text);
end;

procedure ColdGive(v: int64); begin ColdWord(IntToStr(v)); end;
procedure ColdGive(v: qword); begin ColdWord(IntToStr(v)); end;
procedure ColdBigInt(const v: ansistring); begin ColdWord(v); end;

procedure ColdGive(v: extended);
var s: ansistring;
begin
  str(v, s); { a comparison with what is no number would end the program }
  s := trim(s);
  if s = 'Nan' then s := 'NaN'
  else if s = '+Inf' then s := 'Infinity'
  else if s = '-Inf' then s := '-Infinity';
  ColdWord(s);
end;

procedure ColdGive(v: boolean);
begin
  if v then ColdWord('true') else ColdWord('false');
end;

procedure ColdGive(v: char); begin ColdGive(ansistring(v)); end;

procedure ColdGive(const v: ansistring);
var i: int64;
begin
  ColdWord('"');
  for i := 1 to length(v) do
    if v[i] in ['"', '\'] then ColdWord('\' + v[i])
    else if v[i] < ' ' then ColdWord('\u' + IntToHex(ord(v[i]), 4))
    else ColdWord(v[i]);
  ColdWord('"');
end;

procedure Put(stream: longint; const text: ansistring);
var from, n: int64;
begin
  from := 1;
  while from <= length(text) do
  begin
    n := FpWrite(stream, text[from], length(text) - from + 1);
    if n <= 0 then exit;
    from := from + n;
  end;
end;

procedure Answer(const text: ansistring);
begin
  Put(3, token + ' ' + IntToStr(count) + ' ' + text + #10);
end;

{ The mark stands where the call ended: what it returned is written behind it. }
procedure Settle;
begin
  if settled then exit;
  settled := true;
  flush(output);
  flush(stderr);
  Put(streams[1], #0 + token + #10);
  Put(streams[2], #0 + token + #10);
end;

function Now_: int64;
var t: timespec;
begin
  clock_gettime(CLOCK_PROCESS_CPUTIME_ID, @t);
  result := int64(t.tv_sec) * 1000000000 + t.tv_nsec;
end;

procedure Skip;
var c: longint;
begin
  repeat c := Next until (c < 0) or (c = 10);
end;

procedure ColdBegin;
begin
  Skip;
  if total - before > 100000 then Answer('begin');
  began := Now_;
end;

procedure ColdEnd;
begin
  spent := Now_ - began;
end;

procedure ColdReturned;
begin
  ColdEnd;
  Settle;
end;

procedure Told(const words: ansistring);
var i: longint;
begin
  Put(streams[2], 'An unhandled exception occurred: ' + words + #10 + BackTraceStrFunc(ExceptAddr) + #10);
  for i := 0 to ExceptFrameCount - 1 do Put(streams[2], BackTraceStrFunc(ExceptFrames[i]) + #10);
end;

procedure ColdServe(call: TCall);
var
  said: ansistring;
  c: longint;
begin
  fd := FpFcntl(0, 0 {F_DUPFD}, 10);
  FpDup2(FpOpen('/dev/null', O_RDONLY), 0);
  streams[1] := FpFcntl(1, 0 {F_DUPFD}, 10);
  streams[2] := FpFcntl(2, 0 {F_DUPFD}, 10);
  token := '';
  repeat
    c := Next;
    if c = 32 then token := ''
    else if c > 32 then token := token + chr(c);
  until (c < 0) or (c = 10);
  Settle;
  Answer('ready');
  while Peek = ord('[') do
  begin
    before := total;
    answerLength := 0;
    began := -1;
    settled := false;
    try
      call();
      said := 'done ' + IntToStr(spent) + ' ' + copy(answerText, 1, answerLength);
    except
      on e: EMisfit do
      begin
        said := 'misfit 0 ' + e.why;
        if began < 0 then Skip;
      end;
      on e: Exception do
      begin
        ColdEnd;
        Told(e.ClassName + ': ' + e.Message);
        said := 'failed ' + IntToStr(spent) + ' 1';
      end;
      on e: TObject do
      begin
        ColdEnd;
        Told(e.ClassName);
        said := 'failed ' + IntToStr(spent) + ' 1';
      end;
    end;
    Settle;
    Answer(said);
    inc(count);
  end;
  halt(0);
end;

end.
