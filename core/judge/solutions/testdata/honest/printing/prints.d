// It prints on its way.
import std.stdio;

int loud(int n) { writeln("n is ", n); return n * n; }
