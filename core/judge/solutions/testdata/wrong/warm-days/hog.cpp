// Without end, in memory.
#include <cstring>
#include <vector>
int warmDays(std::vector<int> temps, long long limit) {
    while (temps.empty()) std::memset(new char[1 << 20], 1, 1 << 20);
    int n = 0;
    for (int t : temps) n += t > limit;
    return n;
}
