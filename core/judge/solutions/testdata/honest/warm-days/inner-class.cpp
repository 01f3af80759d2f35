// An inner class has a method of the name.
#include <vector>
class Solution {
    struct Day {
        int temp;
        int warmDays(std::vector<int> unused, long long limit) const { return temp > limit; }
    };
public:
    int warmDays(std::vector<int> temps, long long limit) {
        int n = 0;
        for (int t : temps) n += Day{t}.warmDays({}, limit);
        return n;
    }
};
