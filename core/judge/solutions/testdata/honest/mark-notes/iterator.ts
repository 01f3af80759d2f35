// A generator with types, exported by default.
export default function* markNotes(notes: string[], mark: string): Generator<string> {
  for (const n of notes) yield `${n}${mark}`;
}
