// It asks one after the other.
function firstOpen(hut) {
  while (!isOpen(hut)) hut++;
  return hut;
}
