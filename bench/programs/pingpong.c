/* A bare ping-pong: two processes pass a line to and fro over pipes, as often
   as the argument says. Prints the seconds that it took. */
#include <stdio.h>
#include <stdlib.h>
#include <time.h>
#include <unistd.h>
#include <sys/wait.h>

int main(int argc, char **argv)
{
    int there[2], back[2], rounds = argc > 1 ? atoi(argv[1]) : 10000;
    char line[8] = "probe\n";
    struct timespec began, ended;
    if (pipe(there) || pipe(back)) return 1;
    if (fork() == 0) {
        for (int i = 0; i < rounds; i++)
            if (read(there[0], line, 6) != 6 || write(back[1], line, 6) != 6) _exit(1);
        _exit(0);
    }
    clock_gettime(CLOCK_MONOTONIC, &began);
    for (int i = 0; i < rounds; i++)
        if (write(there[1], line, 6) != 6 || read(back[0], line, 6) != 6) return 1;
    clock_gettime(CLOCK_MONOTONIC, &ended);
    wait(0);
    printf("%.9f\n", (ended.tv_sec - began.tv_sec) + 1e-9 * (ended.tv_nsec - began.tv_nsec));
    return 0;
}
