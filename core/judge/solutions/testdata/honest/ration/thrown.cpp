int ration(int food, int team) {
    if (team <= 0) throw invalid_argument("nobody to feed");
    return food / team;
}
