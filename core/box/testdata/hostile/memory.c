/* memory WHAT: takes memory in one of many ways. */
#define _GNU_SOURCE
#include <fcntl.h>
#include <pthread.h>
#include <stdlib.h>
#include <string.h>
#include <sys/mman.h>
#include <sys/shm.h>
#include <sys/wait.h>
#include <unistd.h>

#define IS(word) (!strcmp(argv[1], word))
#define MIB (1L << 20)

static char *take(long bytes, int flags, int fd)
{
    char *p = mmap(NULL, bytes, PROT_READ | PROT_WRITE, flags, fd, 0);
    if (p == MAP_FAILED) _exit(9);
    memset(p, 1, bytes);
    return p;
}

static void *later(void *unused)
{
    usleep(20000);
    for (;;) take(MIB, MAP_PRIVATE | MAP_ANONYMOUS, -1);
    return unused;
}

static int deep(int n)
{
    volatile char frame[64];
    frame[0] = (char)n;
    return n == 0 ? frame[0] : deep(n - 1) + frame[0];
}

int main(int argc, char **argv)
{
    (void)argc;
    if (IS("sudden")) { take(2048 * MIB, MAP_PRIVATE | MAP_ANONYMOUS, -1); pause(); }
    if (IS("slow")) for (;;) { take(MIB, MAP_PRIVATE | MAP_ANONYMOUS, -1); usleep(2000); }
    if (IS("children")) {
        for (int i = 0; i < 4; i++) if (fork() == 0) { take(40 * MIB, MAP_PRIVATE | MAP_ANONYMOUS, -1); pause(); }
        wait(NULL);
    }
    /* the same pages in ten processes are no ten times as many */
    if (IS("children share")) {
        take(50 * MIB, MAP_PRIVATE | MAP_ANONYMOUS, -1);
        for (int i = 0; i < 10; i++) if (fork() == 0) { usleep(200000); _exit(0); }
        while (wait(NULL) > 0) {}
        return 0;
    }
    if (IS("shared")) { take(2048 * MIB, MAP_SHARED | MAP_ANONYMOUS, -1); pause(); }
    if (IS("system v")) return shmget(IPC_PRIVATE, 64 * MIB, IPC_CREAT | 0600) >= 0;
    if (IS("file")) {
        int fd = open("mapped", O_RDWR | O_CREAT, 0600);
        if (ftruncate(fd, 512 * MIB)) return 8;
        take(512 * MIB, MAP_SHARED, fd);
        pause();
    }
    if (IS("memfd")) {
        int fd = memfd_create("mapped", 0);
        if (ftruncate(fd, 512 * MIB)) return 8;
        take(512 * MIB, MAP_SHARED, fd);
        pause();
    }
    /* nothing of these is ever in the address space */
    if (IS("memfds unmapped")) {
        static char block[1 << 20];
        memset(block, 1, sizeof block);
        for (;;) {
            int fd = memfd_create("hoard", 0);
            for (int i = 0; i < 16; i++) if (write(fd, block, sizeof block) < 0) pause();
        }
    }
    if (IS("after the first thread")) {
        pthread_t id;
        pthread_create(&id, NULL, later, NULL);
        pthread_exit(NULL);
    }
    if (IS("deep")) return deep(1000000) == 42;
    if (IS("deep for ever")) return deep(-1);
    return 99;
}
