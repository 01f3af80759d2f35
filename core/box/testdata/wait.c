/* Waits in the way that its argument names, after it has said so. */
#define _GNU_SOURCE
#include <poll.h>
#include <pthread.h>
#include <stdio.h>
#include <string.h>
#include <sys/epoll.h>
#include <unistd.h>

static void *sleeps(void *arg) { for (;;) pause(); return arg; }
static void *burns(void *arg) { for (volatile long i = 0;; i++) {} return arg; }

int main(int argc, char **argv)
{
    char line[100];
    pthread_t thread;
    struct pollfd poll_in = {0, POLLIN, 0};
    const char *how = argc > 1 ? argv[1] : "";
    write(1, "now\n", 4);
    if (!strcmp(how, "read")) read(0, line, sizeof line);
    if (!strcmp(how, "sleep")) sleep(1000);
    if (!strcmp(how, "pause")) pause();
    if (!strcmp(how, "burn")) burns(0);
    if (!strcmp(how, "poll")) poll(&poll_in, 1, -1);
    if (!strcmp(how, "poll for a while")) poll(&poll_in, 1, 1000000);
    if (!strcmp(how, "another pipe")) { int ends[2]; if (!pipe(ends)) read(ends[0], line, 1); }
    if (!strcmp(how, "epoll")) {
        struct epoll_event event = {EPOLLIN, {0}};
        int fd = epoll_create1(0);
        epoll_ctl(fd, EPOLL_CTL_ADD, 0, &event);
        epoll_wait(fd, &event, 1, -1);
    }
    if (!strcmp(how, "read beside a sleeper")) { pthread_create(&thread, 0, sleeps, 0); read(0, line, sizeof line); }
    if (!strcmp(how, "read beside a burner")) { pthread_create(&thread, 0, burns, 0); read(0, line, sizeof line); }
    if (!strcmp(how, "decide")) { dprintf(3, "accept\n"); dprintf(2, "looked\n"); }
    return 0;
}
