// The same in C#.
using System;

class Teams {
    static void Main() {
        var words = Console.In.ReadToEnd().Split((char[])null, StringSplitOptions.RemoveEmptyEntries);
        long least = long.Parse(words[0]);
        int n = int.Parse(words[1]);
        var weights = new long[n];
        for (int i = 0; i < n; i++) weights[i] = long.Parse(words[2 + i]);
        Array.Sort(weights);
        int light = 0, heavy = n - 1, teams = 0;
        while (light < heavy) {
            if (weights[light] + weights[heavy] >= least) { heavy--; teams++; }
            light++;
        }
        Console.WriteLine(teams);
    }
}
