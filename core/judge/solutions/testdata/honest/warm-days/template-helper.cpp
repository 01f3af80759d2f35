// A template of the name helps the function.
#include <vector>
template <class It> int warmDays(It from, It to, long long limit) {
    int n = 0;
    for (; from != to; ++from) n += *from > limit;
    return n;
}
int warmDays(const std::vector<int> &temps, long long limit) { return warmDays(temps.begin(), temps.end(), limit); }
