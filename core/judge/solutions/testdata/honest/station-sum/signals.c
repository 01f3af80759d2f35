// It handles its own signals, an alarm among them, and ignores others.
#include <signal.h>
#include <stdio.h>
#include <unistd.h>
static volatile sig_atomic_t rang;
static void ring(int signal) { rang += signal == SIGALRM || signal == SIGUSR1; }
int main(void)
{
    long long n, x, sum = 0;
    signal(SIGALRM, ring);
    signal(SIGUSR1, ring);
    signal(SIGPIPE, SIG_IGN);
    raise(SIGUSR1);
    ualarm(1000, 0);
    while (rang < 2) pause();
    if (scanf("%lld", &n) != 1) return 1;
    while (n-- > 0 && scanf("%lld", &x) == 1) sum += x;
    printf("%lld\n", sum);
    return 0;
}
