// n + m
#include <bits/stdc++.h>
using namespace std;
int main() {
    int n, m;
    scanf("%d %d", &n, &m);
    vector<int> a(n), b(m);
    for (auto& x : a) scanf("%d", &x);
    for (auto& x : b) scanf("%d", &x);
    long long s = 0;
    for (int x : a) s += x % 3;
    for (int x : b) s += x % 5;
    printf("%lld\n", s);
}
