// Goes from beacon to beacon by recursion, as deep as the chain is long.
#include <algorithm>
#include <cstdio>
#include <vector>

std::vector<std::vector<int>> links;
std::vector<bool> seen;

int visit(int beacon) {
    seen[beacon] = true;
    int size = 1;
    for (int next : links[beacon])
        if (!seen[next]) size += visit(next);
    return size;
}

int main() {
    int n, m;
    if (scanf("%d %d", &n, &m) != 2) return 1;
    links.resize(n + 1);
    seen.resize(n + 1);
    while (m--) {
        int a, b;
        if (scanf("%d %d", &a, &b) != 2) return 1;
        links[a].push_back(b);
        links[b].push_back(a);
    }
    for (int beacon = 1; beacon <= n; beacon++)
        if (!seen[beacon]) {
            int size = visit(beacon);
            printf("%d %d\n", beacon, size);
        }
}
