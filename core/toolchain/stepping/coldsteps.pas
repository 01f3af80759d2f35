{ Has the recorder begin before a program of Pascal does, and end after it: its runtime calls no constructors of C. }
unit coldsteps;
interface
implementation
{$linklib c}
procedure cold_begin; cdecl; external name 'cold_begin';
procedure cold_end; cdecl; external name 'cold_end';
initialization
  cold_begin;
finalization
  cold_end;
end.
