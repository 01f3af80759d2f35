// The public overload is wrong, and the private one right.
#include <vector>
class Solution {
    int warmDays(std::vector<int> temps, long long limit, int from) {
        int n = 0;
        for (size_t i = from; i < temps.size(); i++) n += temps[i] > limit;
        return n;
    }
public:
    int warmDays(std::vector<int> temps, long long limit) { return temps.empty() ? 0 : warmDays(temps, limit, 1); }
};
