// Code points of a text.
using System;
using System.Linq;
class Length
{
    static void Main()
    {
        for (string line; (line = Console.ReadLine()) != null;)
            Console.WriteLine("{0} {1}", line.Count(c => !char.IsLowSurrogate(c)), line);
    }
}
