// By write, in pieces of any size.
#include <stdio.h>
#include <stdlib.h>
#include <unistd.h>
int main(void)
{
    int n, at = 0, size = 0, step = 1;
    if (scanf("%d", &n) != 1) return 1;
    char *text = malloc(30 * n + 1);
    for (int i = 1; i <= n; i++) size += sprintf(text + size, "day %d: %d\n", i, i * 7 % 40 - 20);
    while (at < size) {
        int got = write(1, text + at, step < size - at ? step : size - at);
        if (got < 0) return 1;
        at += got;
        step = step * 3 % 65537;
    }
    return 0;
}
