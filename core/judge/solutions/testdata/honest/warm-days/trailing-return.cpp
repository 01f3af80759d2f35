// What is returned stands behind.
#include <algorithm>
#include <vector>
struct Solution {
    static auto warmDays(std::vector<int> const &temps, long long limit) noexcept -> int {
        return std::count_if(temps.begin(), temps.end(), [=](int t) { return t > limit; });
    }
};
