// The same in a class.
#include <vector>
class Solution {
public:
    int warmDays(const std::vector<int> &temps, long long limit, int from = 0, int found = 0) {
        if (from == (int)temps.size()) return found;
        return warmDays(temps, limit, from + 1, found + (temps[from] > limit));
    }
};
