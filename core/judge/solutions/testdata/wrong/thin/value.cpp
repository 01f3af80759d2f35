// By value.
#include <algorithm>
#include <vector>
void thinOut(std::vector<int> temps, int by) { for (int &t : temps) t -= by; std::sort(temps.begin(), temps.end()); }
