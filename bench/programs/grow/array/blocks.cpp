// n sqrt n
#include <bits/stdc++.h>
using namespace std;
int main() {
    int n;
    scanf("%d", &n);
    vector<long long> w(n);
    for (auto& x : w) scanf("%lld", &x);
    long long s = 0;
    int b = sqrt(n) + 1;
    for (int i = 0; i < n; i++)
        for (int k = i; k < min(n, i + b); k++) s += (w[k] ^ w[i]) % 7;
    printf("%lld\n", s);
}
