// What is known is a property of an object.
type Measure = (depth: number) => number | undefined;
function remembered(measure: Measure): Measure {
  const known: Record<number, number | undefined> = {};
  return (depth) => (depth in known ? known[depth] : (known[depth] = measure(depth)));
}
