/* touch MIB HOW: touches so much memory. HOW: plain, thread (the first thread
 * ends before another touches it), children (two at once, half each), herd N (so
 * many at once, an equal part each). */
#define _GNU_SOURCE
#include <pthread.h>
#include <stdlib.h>
#include <string.h>
#include <sys/mman.h>
#include <sys/wait.h>
#include <unistd.h>

static size_t size;

static void touch(size_t bytes)
{
    char *p = mmap(NULL, bytes, PROT_READ | PROT_WRITE, MAP_PRIVATE | MAP_ANONYMOUS, -1, 0);
    if (p == MAP_FAILED) _exit(9);
    memset(p, 1, bytes);
}

static void *later(void *unused)
{
    usleep(20000);
    touch(size);
    _exit(0);
    return unused;
}

int main(int argc, char **argv)
{
    (void)argc;
    size = (size_t)atoi(argv[1]) << 20;
    if (!strcmp(argv[2], "thread")) {
        pthread_t id;
        pthread_create(&id, NULL, later, NULL);
        pthread_exit(NULL);
    }
    if (!strcmp(argv[2], "herd")) {
        int count = atoi(argv[3]);
        volatile int *ready = mmap(NULL, 4096, PROT_READ | PROT_WRITE, MAP_SHARED | MAP_ANONYMOUS, -1, 0);
        for (int i = 0; i < count; i++)
            if (fork() == 0) {
                touch(size / count);
                __atomic_add_fetch(ready, 1, __ATOMIC_SEQ_CST);
                while (*ready < count) usleep(5000); /* all hold theirs */
                usleep(600000);
                _exit(0);
            }
        while (wait(NULL) > 0) {}
        return 0;
    }
    if (!strcmp(argv[2], "children")) {
        volatile int *ready = mmap(NULL, 4096, PROT_READ | PROT_WRITE, MAP_SHARED | MAP_ANONYMOUS, -1, 0);
        for (int i = 0; i < 2; i++)
            if (fork() == 0) {
                touch(size / 2);
                ready[i] = 1;
                while (!ready[0] || !ready[1]) usleep(1000); /* both hold theirs */
                usleep(200000);
                _exit(0);
            }
        while (wait(NULL) > 0) {}
        return 0;
    }
    touch(size);
    return 0;
}
