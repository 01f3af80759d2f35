// A parameter more, with a default, and the first one lent for changes.
#include <vector>
int warmDays(std::vector<int> &temps, long long limit, bool all = true) {
    int n = 0;
    for (int &t : temps) n += all && t > limit;
    return n;
}
