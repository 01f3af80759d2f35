// Code points.
import std;
void main() { foreach (line; stdin.byLineCopy) writeln(line.walkLength, " ", line); }
