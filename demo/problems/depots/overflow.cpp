// Wrong: the total is an int, which ends at 2,147,483,647.
#include <algorithm>
#include <cstdio>

int main() {
    int depots;
    if (scanf("%d", &depots) != 1) return 1;
    while (depots--) {
        int n;
        if (scanf("%d", &n) != 1) return 1;
        unsigned total = 0;
        int largest = 0;
        for (int i = 0; i < n; i++) {
            int litres;
            if (scanf("%d", &litres) != 1) return 1;
            total += litres;
            largest = std::max(largest, litres);
        }
        printf("%d %d\n", (int)total, largest);
    }
}
