// A function that returns a function that returns one.
function addedUp(start: number): (one: number) => (other: number) => number {
  return (one) => (other) => start + one + other;
}
