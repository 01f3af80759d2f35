public class Solution { public int Ration(int food, int team) { if (team <= 0) throw new ArgumentException("nobody to feed"); return food / team; } }
