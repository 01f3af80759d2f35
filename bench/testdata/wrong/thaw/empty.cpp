// alone: crashes where no day was measured.
#include <algorithm>
#include <vector>

int longestThaw(std::vector<int> temps, long long limit) {
    int best = 0, first = 0, day = 0;
    long long total = 0;
    do {
        if (temps[day] <= 0) first = day + 1, total = 0;
        else {
            total += temps[day];
            while (total > limit) total -= temps[first++];
            best = std::max(best, day - first + 1);
        }
    } while (++day != (int)temps.size());
    return best;
}
