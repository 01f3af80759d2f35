// n!
#include <bits/stdc++.h>
using namespace std;
int main() {
    int n;
    scanf("%d", &n);
    vector<long long> w(n);
    for (auto& x : w) scanf("%lld", &x);
    long long s = 0;
    vector<int> at(n);
    iota(at.begin(), at.end(), 0);
    do s += w[at[0]] & 1;
    while (next_permutation(at.begin(), at.end()));
    printf("%lld\n", s);
}
