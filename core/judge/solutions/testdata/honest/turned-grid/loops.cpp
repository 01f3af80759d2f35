// Loops.
vector<vector<char>> turnedGrid(vector<vector<char>> grid) {
    if (grid.empty()) return {};
    vector<vector<char>> out(grid[0].size(), vector<char>(grid.size()));
    for (size_t i = 0; i < grid.size(); i++)
        for (size_t j = 0; j < grid[0].size(); j++) out[j][grid.size() - 1 - i] = grid[i][j];
    return out;
}
