// reference: loops and parallel links. Each link is taken to join one beacon more.
#include <stdio.h>

static int leader[20001], size[20001];

static int find(int b) { while (leader[b] != b) b = leader[b] = leader[leader[b]]; return b; }

int main(void)
{
    int n, m, a, b;
    if (scanf("%d %d", &n, &m) != 2) return 1;
    for (int i = 1; i <= n; i++) leader[i] = i, size[i] = 1;
    while (m--) {
        if (scanf("%d %d", &a, &b) != 2) return 1;
        a = find(a), b = find(b);
        int least = a < b ? a : b, other = a < b ? b : a;
        size[least] += size[other];
        leader[other] = least;
    }
    for (int i = 1; i <= n; i++) if (leader[i] == i) printf("%d %d\n", i, size[i]);
}
