/* hide WHAT: takes memory or time where it is hard to see. */
#define _GNU_SOURCE
#include <fcntl.h>
#include <pthread.h>
#include <sched.h>
#include <signal.h>
#include <stdint.h>
#include <stdlib.h>
#include <string.h>
#include <sys/mman.h>
#include <sys/socket.h>
#include <sys/syscall.h>
#include <sys/wait.h>
#include <time.h>
#include <unistd.h>

#define IS(word) (!strcmp(argv[1], word))
#define MIB (1L << 20)

static void burn(double seconds)
{
    struct timespec now;
    do clock_gettime(CLOCK_PROCESS_CPUTIME_ID, &now); while (now.tv_sec + now.tv_nsec / 1e9 < seconds);
}

static int burner(void *unused) { burn(0.4); return unused != NULL; }

static void *children_of_a_thread(void *unused)
{
    for (int i = 0; i < 6; i++) if (fork() == 0) { burn(0.3); _exit(0); }
    while (wait(NULL) > 0) {}
    return unused;
}

static void *child_of_a_thread_of_a_thread(void *unused)
{
    pthread_t id;
    pthread_create(&id, NULL, children_of_a_thread, NULL);
    pthread_join(id, NULL);
    return unused;
}

/* A thread that is not the first executes this program again. */
static void *execute(void *word)
{
    char *list[] = {(char *)"hide", word, NULL};
    execv("/proc/thread-self/exe", list);
    _exit(9);
}

static void execute_by_thread(const char *word, int leave)
{
    pthread_t id;
    pthread_create(&id, NULL, execute, (void *)word);
    if (leave) pthread_exit(NULL); /* at the very moment in which the other may execute */
    pthread_join(id, NULL);
}

static void send_away(int over, int fd)
{
    char byte = 0, room[CMSG_SPACE(sizeof fd)] = {0};
    struct iovec one = {&byte, 1};
    struct msghdr message = {.msg_iov = &one, .msg_iovlen = 1, .msg_control = room, .msg_controllen = sizeof room};
    struct cmsghdr *header = CMSG_FIRSTHDR(&message);
    header->cmsg_level = SOL_SOCKET;
    header->cmsg_type = SCM_RIGHTS;
    header->cmsg_len = CMSG_LEN(sizeof fd);
    memcpy(CMSG_DATA(header), &fd, sizeof fd);
    sendmsg(over, &message, MSG_DONTWAIT);
    close(fd);
}

int main(int argc, char **argv)
{
    (void)argc;
    static char block[1 << 20];
    memset(block, 1, sizeof block);

    if (IS("dropped shared pages")) for (int i = 0; i < 400; i++) {
        char *p = mmap(NULL, 4 * MIB, PROT_READ | PROT_WRITE, MAP_SHARED | MAP_ANONYMOUS, -1, 0);
        if (p == MAP_FAILED) return 7;
        memset(p, 1, 4 * MIB);
        madvise(p, 4 * MIB, MADV_DONTNEED);
        usleep(2000);
    }
    if (IS("files in sockets")) {
        int pair[2];
        if (socketpair(AF_UNIX, SOCK_STREAM, 0, pair)) return 7;
        for (int i = 0; i < 100; i++) {
            int fd = memfd_create("away", 0);
            if (fd < 0) return 8;
            for (int j = 0; j < 8; j++) if (write(fd, block, sizeof block) < 0) return 9;
            send_away(pair[0], fd);
            usleep(2000);
        }
    }
    if (IS("page tables")) {
        long size = 200L << 30;
        volatile char *p = mmap(NULL, size, PROT_READ, MAP_PRIVATE | MAP_ANONYMOUS | MAP_NORESERVE, -1, 0);
        if (p == MAP_FAILED) return 7;
        for (long at = 0; at < size; at += 2 * MIB) { (void)p[at]; if (at % (4096 * MIB) == 0) usleep(1000); }
    }
    if (IS("socket buffers")) for (;;) {
        int pair[2];
        if (socketpair(AF_UNIX, SOCK_STREAM, 0, pair)) { usleep(300000); return 6; }
        for (int i = 0; i < 2; i++) while (send(pair[i], block, 65536, MSG_DONTWAIT) > 0) {}
        usleep(500);
    }
    if (IS("pipes")) for (;;) {
        int pair[2];
        if (pipe2(pair, O_NONBLOCK)) { usleep(300000); return 6; }
        fcntl(pair[1], F_SETPIPE_SZ, 1 << 20);
        while (write(pair[1], block, 65536) > 0) {}
        usleep(500);
    }
    if (IS("forty small ones")) {
        for (int i = 0; i < 40; i++) if (fork() == 0) {
            char *p = malloc(4 * MIB);
            memset(p, 1, 4 * MIB);
            pause();
        }
        while (wait(NULL) > 0) {}
    }
    if (IS("a herd")) { /* as many as there may be */
        for (int i = 0; i < 1500; i++) if (fork() == 0) {
            char *p = malloc(4 * MIB);
            memset(p, 1, 4 * MIB);
            pause();
        }
        while (wait(NULL) > 0) {}
    }
    if (IS("memory behind a thread's exec")) execute_by_thread("touch", 0);
    if (IS("time behind a thread's exec")) execute_by_thread("burn", 0);
    if (IS("memory behind an exec and an end")) execute_by_thread("touch", 1);
    if (IS("many execs")) { /* each of a thread, with the first thread ending or not */
        static char left[8] = "32";
        if (getenv("LEFT")) strcpy(left, getenv("LEFT"));
        int n = atoi(left);
        if (n == 0) return 5;
        left[0] = '0' + (n - 1) / 10, left[1] = '0' + (n - 1) % 10;
        setenv("LEFT", left, 1);
        execute_by_thread("many execs", n % 2);
    }
    if (IS("touch")) for (int i = 0; i < 80; i++) memset(malloc(MIB), 1, MIB);
    if (IS("touch")) pause();
    if (IS("burn")) for (;;) {}
    if (IS("a silent child")) {
        static char stack[65536];
        for (int i = 0; i < 8; i++) {
            int pid = clone(burner, stack + sizeof stack, 0, NULL); /* no signal at its end */
            if (pid < 0) return 5;
            waitpid(pid, NULL, __WALL);
        }
    }
    if (IS("children of a thread")) {
        signal(SIGCHLD, SIG_IGN);
        pthread_t id;
        pthread_create(&id, NULL, children_of_a_thread, NULL);
        pthread_join(id, NULL);
    }
    if (IS("children of a thread's thread")) {
        signal(SIGCHLD, SIG_IGN);
        pthread_t id;
        pthread_create(&id, NULL, child_of_a_thread_of_a_thread, NULL);
        pthread_join(id, NULL);
    }
    if (IS("grandchildren nobody waits for")) {
        signal(SIGCHLD, SIG_IGN);
        for (int i = 0; i < 5; i++) if (fork() == 0) {
            signal(SIGCHLD, SIG_DFL);
            if (fork() == 0) { burn(0.3); _exit(0); }
            wait(NULL);
            _exit(0);
        }
        while (wait(NULL) > 0) {}
    }
    if (IS("short ones")) {
        signal(SIGCHLD, SIG_IGN);
        for (int i = 0; i < 400; i++) {
            if (fork() == 0) { burn(0.004); _exit(0); }
            wait(NULL);
        }
    }
    return 0;
}
