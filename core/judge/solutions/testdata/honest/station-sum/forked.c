// A child computes, and its parent prints.
#include <stdio.h>
#include <sys/wait.h>
#include <unistd.h>
int main(void)
{
    int ends[2];
    long long sum = 0;
    if (pipe(ends) != 0) return 1;
    if (fork() == 0) {
        long long n, x;
        if (scanf("%lld", &n) == 1) while (n-- > 0 && scanf("%lld", &x) == 1) sum += x;
        return write(ends[1], &sum, sizeof sum) == sizeof sum ? 0 : 1;
    }
    if (read(ends[0], &sum, sizeof sum) != sizeof sum) return 1;
    wait(NULL);
    printf("%lld\n", sum);
    return 0;
}
