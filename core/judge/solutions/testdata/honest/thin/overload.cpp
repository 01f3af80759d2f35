// A helper of the same name, with a range.
#include <algorithm>
#include <vector>
class Solution {
    void thinOut(int *from, int *to, int by) { for (; from != to; from++) *from -= by; }
public:
    void thinOut(std::vector<int> &temps, int by, bool sorted = true) {
        thinOut(temps.data(), temps.data() + temps.size(), by);
        if (sorted) std::sort(temps.begin(), temps.end());
    }
};
