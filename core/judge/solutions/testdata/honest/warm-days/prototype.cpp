// A prototype with names of its own, in a namespace.
#include <vector>
namespace station {
int warmDays(std::vector<int>, long long);
int twice(std::vector<int> t, long long l) { return 2 * warmDays(t, l); }
int warmDays(std::vector<int> t, long long l) {
    int n = 0;
    for (int x : t) n += x > l;
    return n;
}
}
