// The limit is cut to 32 bits.
#include <vector>
int warmDays(std::vector<int> temps, long long limit) {
    int n = 0;
    for (int t : temps) n += t > (int)limit;
    return n;
}
