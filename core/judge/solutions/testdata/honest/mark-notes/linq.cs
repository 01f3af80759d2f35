// A query that has not run yet, over a list.
using System.Collections.Generic;
using System.Linq;
static class Notes
{
    public static IEnumerable<string> MarkNotes(List<string> notes, char mark) => from n in notes select n + mark;
}
