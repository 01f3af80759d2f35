// With ranges.
import std;
void main() {
    auto words = stdin.byLineCopy.map!(l => l.split.array).joiner.array;
    write(words.drop(1).map!(to!long).sum);
}
