// The same window, in a class, as some judges want it.
#include <algorithm>
#include <vector>

class Thaw {
public:
    int longestThaw(const std::vector<int>& temps, long long limit) {
        int best = 0, first = 0;
        long long total = 0;
        for (int day = 0; day < (int)temps.size(); day++) {
            if (temps[day] <= 0) {
                first = day + 1;
                total = 0;
                continue;
            }
            total += temps[day];
            while (total > limit) total -= temps[first++];
            best = std::max(best, day - first + 1);
        }
        return best;
    }
};
