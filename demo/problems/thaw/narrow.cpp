// Wrong: adds temperatures up in 32 bits.
#include <algorithm>
#include <vector>

int longest_thaw(std::vector<int> temps, long long limit) {
    int best = 0, first = 0, total = 0;
    for (int day = 0; day < (int)temps.size(); day++) {
        if (temps[day] <= 0) {
            first = day + 1;
            total = 0;
            continue;
        }
        total = (int)((unsigned)total + (unsigned)temps[day]);
        while (first <= day && total > limit) total -= temps[first++];
        if (total > 0) best = std::max(best, day - first + 1);
    }
    return best;
}
