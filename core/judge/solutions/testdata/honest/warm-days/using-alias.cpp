// Overloads of one size with names of types that only the class knows.
#include <vector>
class Solution {
    using Row = std::vector<int>;
    typedef long long Limit;
    static int warmDays(const Row *temps, Limit limit) {
        int n = 0;
        for (int t : *temps) n += t > limit;
        return n;
    }
public:
    int warmDays(Row temps, Limit limit) { return warmDays(&temps, limit); }
};
