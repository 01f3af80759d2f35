{ It takes each kind of value that the language has. }
program manifest;
{$mode objfpc}{$H+}
uses SysUtils, Math;

type
  TRow = array of Integer;
  TRows = array of TRow;
  TNames = array of string;

function ReadManifest(const rows: TRows; names: array of string; big: Int64; scale: Double; flag: Boolean;
  mark: Char; huge: string; out words: TNames; out part: Double; out turned: TRows; out all: string; out same: Boolean): Int64;
var
  i, j: Integer;
begin
  Result := big;
  SetLength(turned, Length(rows));
  for i := 0 to High(rows) do
  begin
    SetLength(turned[High(rows) - i], Length(rows[i]));
    for j := 0 to High(rows[i]) do
    begin
      Result := Result + rows[i][j];
      turned[High(rows) - i][High(rows[i]) - j] := rows[i][j];
    end;
  end;
  SetLength(words, Length(names));
  for i := 0 to High(names) do words[i] := names[i] + mark;
  part := scale * 2;
  all := huge;
  same := not flag;
end;

begin
  case ParamCount of
    0: begin WriteLn('nothing to do; end.'); end;
  end;
end.
