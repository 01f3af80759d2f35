{ With a unit for threads. }
program Sum;
var n, i: longint; x, total: int64;
begin
  read(n);
  total := 0;
  for i := 1 to n do begin read(x); total := total + x end;
  write(total);
  halt(0);
end.
