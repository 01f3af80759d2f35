// n^2
#include <bits/stdc++.h>
using namespace std;
int main() {
    int n;
    scanf("%d", &n);
    vector<vector<int>> to(n + 1);
    for (int i = 1; i < n; i++) {
        int a, b;
        scanf("%d %d", &a, &b);
        to[a].push_back(b), to[b].push_back(a);
    }
    vector<int> up(n + 1), todo{1};
    for (size_t i = 0; i < todo.size(); i++)
        for (int x : to[todo[i]])
            if (x != up[todo[i]]) up[x] = todo[i], todo.push_back(x);
    long long s = 0;
    for (int v = 1; v <= n; v++)
        for (int x = v; x; x = up[x]) s++;
    printf("%lld\n", s);
}
