/* burn SECONDS THREADS CHILDREN: uses so much processor time in each of its
 * threads or children, and prints in all how much it used by its own clock. */
#define _GNU_SOURCE
#include <pthread.h>
#include <stdio.h>
#include <stdlib.h>
#include <sys/wait.h>
#include <time.h>
#include <unistd.h>

static double want;

static double used(void)
{
    struct timespec t;
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &t);
    return t.tv_sec + t.tv_nsec * 1e-9;
}

static void *burn(void *unused)
{
    while (used() < want) {}
    return unused;
}

int main(int argc, char **argv)
{
    (void)argc;
    want = atof(argv[1]);
    int threads = atoi(argv[2]), children = atoi(argv[3]);
    pthread_t ids[64];
    for (int i = 0; i < threads; i++) pthread_create(&ids[i], NULL, burn, NULL);
    for (int i = 0; i < threads; i++) pthread_join(ids[i], NULL);
    for (int i = 0; i < children; i++)
        if (fork() == 0) { burn(NULL); _exit(0); }
    while (wait(NULL) > 0) {}
    printf("%.3f\n", want * (threads + children));
    return 0;
}
