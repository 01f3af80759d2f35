// It takes it for a square.
vector<vector<char>> turnedGrid(vector<vector<char>> grid) {
    auto out = grid;
    for (size_t i = 0; i < grid.size(); i++)
        for (size_t j = 0; j < grid.size(); j++) out[j][grid.size() - 1 - i] = grid[i][j];
    return out;
}
