const rows = (grid) => grid.reverse();

const greet = async (words, sign) => words.map((w) => w + sign);

function measure(n, x, cap) {
  if (cap === null) return Object.is(x, -0) ? undefined : n;
  return n < cap ? n : cap;
}

class Station {
  extremes(temps, warm) {
    return [Math.min(...temps), warm ? Math.max(...temps) : 0, temps.reduce((a, b) => a + b) / temps.length];
  }
}

function echo(n) {
  return n + 0n;
}
