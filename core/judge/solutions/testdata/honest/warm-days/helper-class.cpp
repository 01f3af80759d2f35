// A helper class with a method of the name, which cannot be made without arguments.
#include <vector>
class Counter {
    long long limit;
public:
    explicit Counter(long long limit) : limit(limit) {}
    int warmDays(const std::vector<int> &temps, long long more) {
        int n = 0;
        for (int t : temps) n += t > limit + more;
        return n;
    }
};
class Solution {
public:
    int warmDays(std::vector<int> &temps, long long limit) { return Counter(limit).warmDays(temps, 0); }
};
