/* processes WHAT: leaves, kills and multiplies processes and threads. */
#define _GNU_SOURCE
#include <pthread.h>
#include <signal.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/wait.h>
#include <time.h>
#include <unistd.h>

#define IS(word) (!strcmp(argv[1], word))

static void burn(double seconds)
{
    while (clock() < seconds * CLOCKS_PER_SEC) {}
}

static void ignore_signals(void)
{
    for (int s = 1; s < 65; s++) signal(s, SIG_IGN);
}

static void *rest(void *unused)
{
    usleep(300000);
    return unused;
}

static void *fork_and_burn(void *unused)
{
    if (fork() == 0) { burn(30); _exit(0); }
    wait(NULL);
    return unused;
}

int main(int argc, char **argv)
{
    (void)argc;
    if (IS("bomb")) for (;;) fork();
    if (IS("bomb of threads")) {
        pthread_t id;
        for (;;) if (pthread_create(&id, NULL, rest, NULL)) usleep(1000);
    }
    if (IS("daemon")) {
        if (fork() == 0) {
            setsid();
            if (fork() == 0) { ignore_signals(); for (;;) pause(); }
            _exit(0);
        }
        wait(NULL);
        return 0;
    }
    if (IS("ignore")) { ignore_signals(); for (;;) {} }
    if (IS("stop")) { for (;;) raise(SIGSTOP); }
    if (IS("kill parent")) { kill(getppid(), SIGKILL); kill(getppid(), SIGSTOP); usleep(20000); return 4; }
    if (IS("kill group")) { kill(0, SIGKILL); return 4; }
    if (IS("kill all")) { kill(-1, SIGKILL); return 4; }
    /* a new child every millisecond, by whichever has just been born */
    if (IS("run away")) for (;;) { usleep(1000); if (fork()) _exit(0); }
    /* the kernel adds nothing up for those who will not hear of their children */
    if (IS("deny children")) {
        signal(SIGCHLD, SIG_IGN);
        for (;;) {
            if (fork() == 0) { burn(0.02); _exit(0); }
            wait(NULL);
        }
    }
    if (IS("burn beside")) {
        pthread_t id;
        pthread_create(&id, NULL, fork_and_burn, NULL);
        pthread_join(id, NULL);
    }
    if (IS("thousand threads")) {
        static pthread_t ids[1000];
        pthread_attr_t small;
        pthread_attr_init(&small);
        pthread_attr_setstacksize(&small, 65536);
        for (int i = 0; i < 1000; i++) if (pthread_create(&ids[i], &small, rest, NULL)) return 9;
        for (int i = 0; i < 1000; i++) pthread_join(ids[i], NULL);
        return 0;
    }
    if (IS("leave a writer")) {
        printf("said by the parent\n");
        fflush(stdout);
        if (fork() == 0) { ignore_signals(); for (;;) { usleep(1000); if (write(1, "", 0) < 0) _exit(0); } }
        return 0;
    }
    return 99;
}
