// n
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
    vector<int> depth(n + 1, -1), todo{1};
    depth[1] = 0;
    int most = 0;
    while (!todo.empty()) {
        int v = todo.back();
        todo.pop_back();
        most = max(most, depth[v]);
        for (int x : to[v])
            if (depth[x] < 0) depth[x] = depth[v] + 1, todo.push_back(x);
    }
    printf("%d\n", most);
}
