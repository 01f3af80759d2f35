// It goes round and round.
function reach(camp) { return camp ? 1 + camp.neighbors.reduce((n, c) => n + reach(c), 0) : 0; }
