// Two methods of the same size; the public one takes what the problem gives.
#include <vector>
#include <string>
class Solution {
private:
    int warmDays(const std::string &day, long long limit) { return (int)day.size() > limit; }
public:
    int warmDays(std::vector<int> temps, long long limit) {
        int n = 0;
        for (int t : temps) n += t > limit;
        return n + 0 * warmDays("day", 0);
    }
};
