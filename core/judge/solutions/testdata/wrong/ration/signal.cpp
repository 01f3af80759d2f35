int ration(int food, int team) { if (team < 0) throw 1; return food / team; }
