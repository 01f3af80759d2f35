// It closes standard input and output when it is done.
#include <stdio.h>
#include <unistd.h>
int main(void)
{
    long long n, x, sum = 0;
    if (scanf("%lld", &n) != 1) return 1;
    while (n-- > 0 && scanf("%lld", &x) == 1) sum += x;
    printf("%lld\n", sum);
    fclose(stdout);
    fclose(stdin);
    close(2);
    return 0;
}
