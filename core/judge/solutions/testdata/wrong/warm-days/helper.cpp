// The helper is right, and the solution is not.
#include <vector>
struct Day {
    int warmDays(std::vector<int> temps, long long limit) { int n = 0; for (int t : temps) n += t > limit; return n; }
};
class Solution {
public:
    int warmDays(std::vector<int> temps, long long limit) { return Day().warmDays(temps, limit) - 1; }
};
