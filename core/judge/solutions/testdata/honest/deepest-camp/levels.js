// Level by level.
function deepest(camp) {
  let level = camp ? [camp] : [], n = 0;
  for (; level.length; n++) level = level.flatMap((c) => [c.left, c.right].filter(Boolean));
  return n;
}
