/* late WHAT AMOUNT: passes a limit, and prints by the monotonic clock when that
 * was: "time" and so many seconds of processor time, "wall" and seconds, or
 * "memory" and bytes. Then it goes on. */
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>
#include <unistd.h>

static double now(clockid_t clock)
{
    struct timespec t;
    clock_gettime(clock, &t);
    return t.tv_sec + t.tv_nsec * 1e-9;
}

static void say(double moment)
{
    printf("%.6f\n", moment);
    fflush(stdout);
}

int main(int argc, char **argv)
{
    double began = now(CLOCK_MONOTONIC);
    if (argc < 3) return 64;
    double amount = atof(argv[2]);
    if (!strcmp(argv[1], "wall")) {
        say(began + amount);
        for (;;) pause();
    }
    if (!strcmp(argv[1], "memory")) {
        for (double taken = 0; taken < amount; taken += 1 << 20) memset(malloc(1 << 20), 1, 1 << 20);
        say(now(CLOCK_MONOTONIC));
        for (;;) pause();
    }
    while (now(CLOCK_PROCESS_CPUTIME_ID) < amount) {}
    say(now(CLOCK_MONOTONIC));
    for (;;) {}
}
