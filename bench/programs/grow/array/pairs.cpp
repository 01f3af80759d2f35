// n^2
#include <bits/stdc++.h>
using namespace std;
int main() {
    int n;
    scanf("%d", &n);
    vector<long long> w(n);
    for (auto& x : w) scanf("%lld", &x);
    long long s = 0;
    for (int i = 0; i < n; i++)
        for (int k = 0; k < i; k++) s += (w[k] ^ w[i]) % 7;
    printf("%lld\n", s);
}
