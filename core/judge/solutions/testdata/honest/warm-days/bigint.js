// All integers as BigInts.
function warmDays(temps, limit) {
  let n = 0n;
  for (const t of temps) if (BigInt(t) > BigInt(limit)) n++;
  return n;
}
