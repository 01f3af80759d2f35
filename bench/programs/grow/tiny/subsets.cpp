// 2^n
#include <bits/stdc++.h>
using namespace std;
int main() {
    int n;
    scanf("%d", &n);
    vector<long long> w(n);
    for (auto& x : w) scanf("%lld", &x);
    long long s = 0;
    for (long long m = 0; m < 1LL << n; m++) s += w[__builtin_popcountll(m) % n] & 1;
    printf("%lld\n", s);
}
