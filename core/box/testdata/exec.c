/* exec WHO [TIMES]: a thread that is not the first executes this program again, TIMES times, one
 * after the other. What is executed last takes 50 ms of processor time and 20 MiB, and prints 3. */
#include <pthread.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/wait.h>
#include <time.h>
#include <unistd.h>

static char who[32], left[16];

static void work(void)
{
    struct timespec now;
    static volatile char *block;
    block = malloc(20 << 20);
    for (long i = 0; i < 20 << 20; i += 512) block[i] = 1;
    do clock_gettime(CLOCK_PROCESS_CPUTIME_ID, &now); while (now.tv_sec * 1000 + now.tv_nsec / 1000000 < 50);
    puts("3");
}

static void *execute(void *unused)
{
    (void)unused;
    execl("/proc/thread-self/exe", "exec", who, left, NULL);
    _exit(9);
}

static void *run(void *unused)
{
    (void)unused;
    for (volatile long n = 0;; n++) {}
}

static void *rest(void *unused)
{
    (void)unused;
    for (;;) pause();
}

static void start(void *(*what)(void *))
{
    pthread_t id;
    if (pthread_create(&id, NULL, what, NULL)) _exit(8);
}

int main(int argc, char **argv)
{
    int times = argc > 2 ? atoi(argv[2]) : 1;
    strcpy(who, argv[1]);
    if (times == 0) { work(); return 0; }
    sprintf(left, "%d", times - 1);
    if (!strcmp(who, "child")) {
        int status = 0, child = fork();
        if (child) return waitpid(child, &status, 0) == child ? WEXITSTATUS(status) : 7;
        strcpy(who, "second");
    }
    if (!strcmp(who, "among")) for (int i = 0; i < 20; i++) start(i % 2 ? run : rest);
    if (!strcmp(who, "busy")) start(run);
    start(execute);
    if (!strcmp(who, "leaving")) pthread_exit(NULL); /* at the very moment in which the other may execute */
    if (!strcmp(who, "busy") || !strcmp(who, "among")) run(NULL);
    rest(NULL);
}
