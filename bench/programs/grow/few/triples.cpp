// n^3
#include <bits/stdc++.h>
using namespace std;
int main() {
    int n;
    scanf("%d", &n);
    vector<long long> w(n);
    for (auto& x : w) scanf("%lld", &x);
    long long s = 0;
    for (int i = 0; i < n; i++)
        for (int k = 0; k < i; k++)
            for (int j = 0; j < k; j++) s += (w[i] ^ w[k] ^ w[j]) & 1;
    printf("%lld\n", s);
}
