// By printf.
#include <stdio.h>
int main(void)
{
    int n;
    if (scanf("%d", &n) != 1) return 1;
    for (int i = 1; i <= n; i++) printf("day %d: %d\n", i, i * 7 % 40 - 20);
    return 0;
}
