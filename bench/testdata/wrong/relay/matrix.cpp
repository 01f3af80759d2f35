// alone: memory. A table of all pairs.
#include <cstdio>
#include <vector>

int main() {
    int n, m;
    if (scanf("%d %d", &n, &m) != 2) return 1;
    std::vector<std::vector<char>> linked(n + 1, std::vector<char>(n + 1));
    while (m--) {
        int a, b;
        if (scanf("%d %d", &a, &b) != 2) return 1;
        linked[a][b] = linked[b][a] = 1;
    }
    std::vector<char> seen(n + 1);
    for (int first = 1; first <= n; first++) {
        if (seen[first]) continue;
        std::vector<int> group{first};
        seen[first] = 1;
        for (size_t i = 0; i < group.size(); i++)
            for (int other = 1; other <= n; other++)
                if (linked[group[i]][other] && !seen[other]) seen[other] = 1, group.push_back(other);
        printf("%d %zu\n", first, group.size());
    }
}
