// The usual words of a contestant, in the way of the usual site.
#include <bits/stdc++.h>
#define int long long
using namespace std;
static auto quick = []() { ios::sync_with_stdio(false); cin.tie(nullptr); return 0; }();
int memo;
class Solution {
public:
    int warmDays(vector<int> &temps, int limit) {
        memo = 0;
        for (int t : temps) if (t > limit) memo++;
        return memo;
    }
};
