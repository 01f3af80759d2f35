// A generic helper, a tuple and an optional parameter.
type Pair = readonly [string, string];
const joined = ([a, b]: Pair): string => a + b;
function markNotes(notes: string[], mark: string, sep?: string): string[] {
  return notes.map((n): Pair => [n, mark]).map(joined);
}
