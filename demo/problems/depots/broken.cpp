// Does not compile: a name that was never declared, and a semicolon too few.
#include <cstdio>

int main() {
    int depots;
    scanf("%d", &depots)
    printf("%d\n", total);
}
