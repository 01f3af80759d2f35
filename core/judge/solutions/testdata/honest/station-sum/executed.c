// It executes itself again, with an argument.
#include <stdio.h>
#include <string.h>
#include <unistd.h>
int main(int argc, char **argv)
{
    if (argc == 1) {
        char *again[] = {argv[0], (char *)"again", NULL};
        execv("/proc/self/exe", again);
        return 1;
    }
    long long n, x, sum = 0;
    if (strcmp(argv[1], "again") || scanf("%lld", &n) != 1) return 1;
    while (n-- > 0 && scanf("%lld", &x) == 1) sum += x;
    printf("%lld\n", sum);
    return 0;
}
