/* The yardstick: runs a program on an input file N times, W at a time, with
 * posix_spawn, a pipe for each of its two outputs, and wait4; nothing else.
 *
 *     spawn N W INPUT PROGRAM [ARG ...]
 *
 * Prints the elapsed seconds. Each of the W workers is a process of its own.
 * With an N of 0 it runs the program once for each byte that it reads, and
 * prints the seconds of each.
 */
#define _GNU_SOURCE
#include <fcntl.h>
#include <poll.h>
#include <spawn.h>
#include <stdio.h>
#include <stdlib.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <time.h>
#include <unistd.h>

extern char **environ;

static void once(const char *input, char **argv)
{
    char buffer[65536];
    int out[2], err[2];
    if (pipe2(out, O_CLOEXEC) || pipe2(err, O_CLOEXEC)) { perror("pipe"); exit(1); }
    posix_spawn_file_actions_t actions;
    posix_spawn_file_actions_init(&actions);
    posix_spawn_file_actions_addopen(&actions, 0, input, O_RDONLY, 0);
    posix_spawn_file_actions_adddup2(&actions, out[1], 1);
    posix_spawn_file_actions_adddup2(&actions, err[1], 2);
    pid_t pid;
    if (posix_spawn(&pid, argv[0], &actions, NULL, argv, environ)) { perror("posix_spawn"); exit(1); }
    posix_spawn_file_actions_destroy(&actions);
    close(out[1]);
    close(err[1]);
    struct pollfd polls[2] = {{out[0], POLLIN, 0}, {err[0], POLLIN, 0}};
    int open_ends = 2;
    while (open_ends) {
        poll(polls, 2, -1);
        for (int i = 0; i < 2; i++)
            if (polls[i].revents && read(polls[i].fd, buffer, sizeof buffer) <= 0) {
                close(polls[i].fd);
                polls[i].fd = -1;
                open_ends--;
            }
    }
    int status;
    struct rusage usage;
    wait4(pid, &status, 0, &usage);
}

static double now(void)
{
    struct timespec t;
    clock_gettime(CLOCK_MONOTONIC, &t);
    return t.tv_sec + t.tv_nsec * 1e-9;
}

int main(int argc, char **argv)
{
    if (argc < 5) return 64;
    int runs = atoi(argv[1]), workers = atoi(argv[2]);
    char asked;
    while (!runs && read(0, &asked, 1) == 1) {
        double began = now();
        once(argv[3], argv + 4);
        printf("%.6f\n", now() - began);
        fflush(stdout);
    }
    if (!runs) return 0;
    double began = now();
    for (int w = 0; w < workers; w++)
        if (fork() == 0) {
            for (int i = w; i < runs; i += workers) once(argv[3], argv + 4);
            _exit(0);
        }
    while (wait(NULL) > 0) {}
    printf("%.4f\n", now() - began);
    return 0;
}
