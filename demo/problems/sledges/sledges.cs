// The same in C#.
using System;

class Sledges {
    static void Main() {
        var words = Console.In.ReadToEnd().Split((char[])null, StringSplitOptions.RemoveEmptyEntries);
        int n = int.Parse(words[0]);
        long capacity = long.Parse(words[1]);
        var weights = new long[n];
        for (int i = 0; i < n; i++) weights[i] = long.Parse(words[2 + i]);
        Array.Sort(weights);
        int light = 0, heavy = n - 1, sledges = 0;
        while (light <= heavy) {
            if (light < heavy && weights[light] + weights[heavy] <= capacity) light++;
            heavy--;
            sledges++;
        }
        Console.WriteLine(sledges);
    }
}
