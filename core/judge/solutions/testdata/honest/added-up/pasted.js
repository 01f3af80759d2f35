// A function that returns a function that returns one.
var addedUp = (start) => (one) => (other) => start + one + other;
