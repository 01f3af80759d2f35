// It flushes by hand and leaves by _exit; the input is read by system calls.
#include <stdio.h>
#include <stdlib.h>
#include <unistd.h>
int main(void)
{
    static char text[1 << 16];
    ssize_t n = 0, got;
    while ((got = read(0, text + n, sizeof text - n - 1)) > 0) n += got;
    char *at = text;
    long long count = strtoll(at, &at, 10), sum = 0;
    while (count-- > 0) sum += strtoll(at, &at, 10);
    printf("%lld\n", sum);
    fflush(stdout);
    _exit(0);
}
