// A private overload stands above the public one.
#include <bits/stdc++.h>
using namespace std;
class Solution {
    int warmDays(const vector<int> &temps, long long limit, size_t from) {
        return from == temps.size() ? 0 : (temps[from] > limit) + warmDays(temps, limit, from + 1);
    }
public:
    int warmDays(vector<int> &temps, long long limit) { return warmDays(temps, limit, 0); }
};
