// n + m
#include <bits/stdc++.h>
using namespace std;
int main() {
    int n, m;
    scanf("%d %d", &n, &m);
    vector<vector<int>> to(n + 1);
    for (int i = 0; i < m; i++) {
        int a, b;
        scanf("%d %d", &a, &b);
        to[a].push_back(b), to[b].push_back(a);
    }
    vector<int> far(n + 1, -1);
    queue<int> todo;
    todo.push(1), far[1] = 0;
    while (!todo.empty()) {
        int v = todo.front();
        todo.pop();
        for (int x : to[v])
            if (far[x] < 0) far[x] = far[v] + 1, todo.push(x);
    }
    printf("%d\n", *max_element(far.begin(), far.end()));
}
