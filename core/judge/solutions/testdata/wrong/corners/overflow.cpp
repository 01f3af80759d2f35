// The sum is cut to 32 bits.
#include <optional>
#include <tuple>
#include <vector>
std::tuple<std::optional<int>, long long, std::vector<int>, bool> corners(std::vector<std::vector<int>> grid) {
    std::optional<int> least; unsigned total = 0; std::vector<int> row; bool warm = false;
    for (auto &r : grid) for (int t : r) total += t, warm |= t > 0, least = std::min(least.value_or(t), t);
    if (grid.size() > 1) row = grid[1];
    return {least, (int)total, row, warm};
}
