// Console, with text that is split by anything.
using System;
using System.Linq;
class Program
{
    static int Main()
    {
        var words = Console.In.ReadToEnd().Split((char[])null, StringSplitOptions.RemoveEmptyEntries);
        Console.Write(words.Skip(1).Select(long.Parse).Sum());
        return 0;
    }
}
