// A tuple that is made by braces.
#include <optional>
#include <tuple>
#include <vector>
using namespace std;
tuple<optional<int>, long long, vector<int>, bool> corners(const vector<vector<int>> &grid) {
    optional<int> least;
    long long total = 0, best = 0;
    vector<int> row;
    bool warm = false;
    for (auto &r : grid) {
        long long sum = 0;
        for (int t : r) sum += t, warm |= t > 0, least = min(least.value_or(t), t);
        if (row.empty() || sum > best) row = r, best = sum;
        total += sum;
    }
    return {least, total, row, warm};
}
