// Yielded, and one too few.
using System.Collections.Generic;
public class Solution { public IEnumerable<string> MarkNotes(string[] notes, char mark) { for (int i = 1; i < notes.Length; i++) yield return notes[i] + mark; } }
