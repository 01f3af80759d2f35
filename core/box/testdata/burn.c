/* burn SECONDS THREADS CHILDREN [deny]: uses so much processor time in each of
 * its threads and children, and prints how much that was by its own clock. With
 * deny it does not want to hear of its children, and they tell it themselves. */
#define _GNU_SOURCE
#include <pthread.h>
#include <signal.h>
#include <stdio.h>
#include <stdlib.h>
#include <sys/mman.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <time.h>
#include <unistd.h>

static double want;

static double used(clockid_t clock)
{
    struct timespec t;
    clock_gettime(clock, &t);
    return t.tv_sec + t.tv_nsec * 1e-9;
}

static void *burn(void *unused)
{
    while (used(CLOCK_THREAD_CPUTIME_ID) < want) {}
    return unused;
}

static double of_children(void)
{
    struct rusage r;
    getrusage(RUSAGE_CHILDREN, &r);
    return r.ru_utime.tv_sec + r.ru_stime.tv_sec + (r.ru_utime.tv_usec + r.ru_stime.tv_usec) * 1e-6;
}

int main(int argc, char **argv)
{
    want = atof(argv[1]);
    int threads = atoi(argv[2]), children = atoi(argv[3]), deny = argc > 4;
    pthread_t ids[64];
    for (int i = 0; i < threads; i++) pthread_create(&ids[i], NULL, burn, NULL);
    for (int i = 0; i < threads; i++) pthread_join(ids[i], NULL);
    if (deny) signal(SIGCHLD, SIG_IGN);
    double *told = mmap(NULL, 4096, PROT_READ | PROT_WRITE, MAP_SHARED | MAP_ANONYMOUS, -1, 0), all_told = 0;
    for (int i = 0; i < children; i++)
        if (fork() == 0) { burn(NULL); told[i] = used(CLOCK_PROCESS_CPUTIME_ID); _exit(0); }
    while (wait(NULL) > 0) {}
    for (int i = 0; i < children; i++) all_told += told[i];
    printf("%.6f\n", used(CLOCK_PROCESS_CPUTIME_ID) + (deny ? all_told : of_children()));
    return 0;
}
