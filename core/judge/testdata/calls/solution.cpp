#include <algorithm>
#include <cmath>
#include <numeric>
#include <optional>
#include <string>
#include <tuple>
#include <vector>
#define int long long
using namespace std;

auto rows(vector<vector<int>> &grid) -> vector<vector<int>> {
    reverse(grid.begin(), grid.end());
    return grid;
}

namespace hall {
vector<string> greet(const vector<string> &words, char sign) {
    vector<string> all;
    for (auto &w : words) all.push_back(w + sign);
    return all;
}
}

optional<int> measure(int n, double x, optional<int> cap) {
    if (!cap) return signbit(x) ? nullopt : optional<int>(n);
    return min(n, *cap);
}

class Station {
public:
    tuple<int, int, double> extremes(const vector<int> &temps, bool warm) const {
        return {*min_element(temps.begin(), temps.end()), warm ? *max_element(temps.begin(), temps.end()) : 0,
                accumulate(temps.begin(), temps.end(), 0.0) / temps.size()};
    }
};

string echo(const string &n) { return n; }

signed main() { return 1; }
