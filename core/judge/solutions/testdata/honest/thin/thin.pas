// In place; no main program.
{$mode objfpc}

procedure thin_out(var temps: array of longint; by: longint);
var
  i, j, kept: longint;
begin
  for i := 0 to high(temps) do
    temps[i] := temps[i] - by;
  for i := 1 to high(temps) do
  begin
    kept := temps[i];
    j := i - 1;
    while (j >= 0) and (temps[j] > kept) do
    begin
      temps[j + 1] := temps[j];
      dec(j);
    end;
    temps[j + 1] := kept;
  end;
end;
