{ The same in Pascal, with a sort of its own. }
program teams;
var
  n, i, light, heavy, count: longint;
  least: int64;
  weights: array[0..199999] of int64;

procedure sort(l, r: longint);
var
  i, j: longint;
  pivot, kept: int64;
begin
  i := l; j := r;
  pivot := weights[(l + r) div 2];
  repeat
    while weights[i] < pivot do inc(i);
    while weights[j] > pivot do dec(j);
    if i <= j then
    begin
      kept := weights[i]; weights[i] := weights[j]; weights[j] := kept;
      inc(i); dec(j);
    end;
  until i > j;
  if l < j then sort(l, j);
  if i < r then sort(i, r);
end;

begin
  read(least, n);
  for i := 0 to n - 1 do read(weights[i]);
  sort(0, n - 1);
  light := 0; heavy := n - 1; count := 0;
  while light < heavy do
  begin
    if weights[light] + weights[heavy] >= least then
    begin
      dec(heavy);
      inc(count);
    end;
    inc(light);
  end;
  writeln(count);
end.
