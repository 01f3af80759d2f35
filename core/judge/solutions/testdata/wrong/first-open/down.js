// It goes the wrong way.
function firstOpen(hut) {
  while (!isOpen(hut)) hut--;
  return hut;
}
