// n^2
#include <bits/stdc++.h>
using namespace std;
int main() {
    int n;
    scanf("%d", &n);
    vector<long long> w(n);
    for (auto& x : w) scanf("%lld", &x);
    long long s = 0;
    auto quick = [&](auto&& self, int a, int b) -> void {
        if (a >= b) return;
        long long p = w[a];
        int at = a;
        for (int i = a + 1; i <= b; i++)
            if (w[i] < p) swap(w[++at], w[i]);
        swap(w[a], w[at]);
        self(self, a, at - 1);
        self(self, at + 1, b);
    };
    quick(quick, 0, n - 1);
    s = w[n / 2];
    printf("%lld\n", s);
}
