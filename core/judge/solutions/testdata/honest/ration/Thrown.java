class Thrown { static int ration(int food, int team) { if (team <= 0) throw new IllegalArgumentException("nobody to feed"); return food / team; } }
