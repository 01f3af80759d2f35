// Wrong: takes the beacon with which it begins, the last one, for the least of its group.
#include <cstdio>
#include <vector>

int main() {
    int n, m;
    if (scanf("%d %d", &n, &m) != 2) return 1;
    std::vector<std::vector<int>> links(n + 1);
    while (m--) {
        int a, b;
        if (scanf("%d %d", &a, &b) != 2) return 1;
        links[a].push_back(b);
        links[b].push_back(a);
    }
    std::vector<bool> seen(n + 1);
    for (int beacon = n; beacon >= 1; beacon--) {
        if (seen[beacon]) continue;
        std::vector<int> group = {beacon};
        seen[beacon] = true;
        for (size_t i = 0; i < group.size(); i++)
            for (int next : links[group[i]])
                if (!seen[next]) seen[next] = true, group.push_back(next);
        printf("%d %d\n", beacon, (int)group.size());
    }
}
