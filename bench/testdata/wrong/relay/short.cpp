// alone: wrong bounds. The last beacon has no place.
#include <cstdio>
#include <vector>

int main() {
    int n, m;
    if (scanf("%d %d", &n, &m) != 2) return 1;
    std::vector<std::vector<int>> links(n);
    std::vector<char> seen(n + 1);
    while (m--) {
        int a, b;
        if (scanf("%d %d", &a, &b) != 2) return 1;
        links[a].push_back(b);
        links[b].push_back(a);
    }
    for (int first = 1; first <= n; first++) {
        if (seen[first]) continue;
        std::vector<int> group{first};
        seen[first] = 1;
        for (size_t i = 0; i < group.size(); i++)
            for (int other : links[group[i]])
                if (!seen[other]) seen[other] = 1, group.push_back(other);
        printf("%d %zu\n", first, group.size());
    }
}
