// n
#include <bits/stdc++.h>
using namespace std;
int main() {
    int n;
    scanf("%d", &n);
    vector<long long> w(n);
    for (auto& x : w) scanf("%lld", &x);
    long long s = 0;
    for (auto x : w) s += x;
    printf("%lld\n", s);
}
