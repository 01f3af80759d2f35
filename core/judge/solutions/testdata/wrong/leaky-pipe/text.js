// It asks about texts.
function firstLeaky(n) {
  for (let joint = 1; joint < 4; joint++) if (isLeaky(String(joint))) return joint;
  return n;
}
