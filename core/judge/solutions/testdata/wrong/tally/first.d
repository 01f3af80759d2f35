// It takes for granted that there is a row.
import std.algorithm, std.array, std.bigint, std.typecons, std.conv;

auto tallyUp(int[][] rows, string[] names, long big, double scale, bool flag, dchar mark, BigInt huge, Nullable!int maybe)
{
    long sum = big + rows.joiner.sum + rows[0].length - rows[0].length;
    Nullable!int half;
    if (!maybe.isNull) half = maybe.get / 2;
    return tuple(sum, names.map!(n => n ~ mark.to!string).array, scale * 2, rows.dup.reverse.map!(r => r.dup.reverse.array).array, huge, !flag, half);
}

void main() { assert(false); }
