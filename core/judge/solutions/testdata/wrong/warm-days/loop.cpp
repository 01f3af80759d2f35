// Without end where there is none.
#include <vector>
int warmDays(std::vector<int> temps, long long limit) {
    volatile unsigned i = 0;
    while (temps.empty()) i = i + 1;
    int n = 0;
    for (int t : temps) n += t > limit;
    return n;
}
