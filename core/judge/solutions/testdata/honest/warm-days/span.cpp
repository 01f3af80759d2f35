// Const overload and non-const overload.
#include <vector>
class Solution {
public:
    int warmDays(const std::vector<int> &temps, long long limit) const {
        int n = 0;
        for (int t : temps) n += t > limit;
        return n;
    }
    int warmDays(std::vector<int> &temps, long long limit) { return static_cast<const Solution *>(this)->warmDays(temps, limit); }
};
