// A parameter more, with a default.
#include <vector>
int warmDays(std::vector<int> temps, long long limit, int from = 0) {
    if (from == (int)temps.size()) return 0;
    return (temps[from] > limit) + warmDays(temps, limit, from + 1);
}
