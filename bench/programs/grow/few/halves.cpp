// n^2 log n
#include <bits/stdc++.h>
using namespace std;
int main() {
    int n;
    scanf("%d", &n);
    vector<long long> w(n);
    for (auto& x : w) scanf("%lld", &x);
    long long s = 0;
    for (int i = 0; i < n; i++) {
        multiset<long long> seen;
        for (int k = 0; k < n; k++) seen.insert((w[k] ^ w[i]) % 1000003);
        s += *seen.begin();
    }
    printf("%lld\n", s);
}
