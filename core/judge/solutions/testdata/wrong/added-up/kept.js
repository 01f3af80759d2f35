// It keeps what was added before.
function addedUp(start) {
  let sum = start;
  return (one) => (other) => (sum += one + other);
}
