// What is yielded.
using System.Collections.Generic;
public class Solution
{
    public IEnumerable<string> MarkNotes(string[] notes, char mark)
    {
        foreach (string n in notes) yield return n + mark;
    }
}
