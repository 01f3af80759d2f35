// A loop.
import std.conv, std.algorithm;

string packed(string word)
{
    string all;
    foreach (run; word.group) all ~= run[0].to!string ~ (run[1] > 1 ? run[1].to!string : "");
    return all;
}
