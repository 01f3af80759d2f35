// Two free overloads of one size, the helper first.
#include <vector>
#include <utility>
using It = std::vector<int>::const_iterator;
int warmDays(std::pair<It, It> range, long long limit) {
    int n = 0;
    for (It i = range.first; i != range.second; ++i) n += *i > limit;
    return n;
}
int warmDays(std::vector<int> temps, long long limit) { return warmDays(std::make_pair(temps.cbegin(), temps.cend()), limit); }
