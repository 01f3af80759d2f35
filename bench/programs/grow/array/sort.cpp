// n log n
#include <bits/stdc++.h>
using namespace std;
int main() {
    int n;
    scanf("%d", &n);
    vector<long long> w(n);
    for (auto& x : w) scanf("%lld", &x);
    long long s = 0;
    sort(w.begin(), w.end());
    for (int i = 0; i < n; i++) s += w[i] * (i % 3);
    printf("%lld\n", s);
}
