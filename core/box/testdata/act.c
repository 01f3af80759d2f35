/* act WHAT: does one thing that a careless or hostile program does. */
#define _GNU_SOURCE
#include <fcntl.h>
#include <signal.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/resource.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

#define IS(word) (!strcmp(argv[1], word))

static int deep(int n)
{
    volatile char frame[64];
    frame[0] = (char)n;
    return n == 0 ? frame[0] : deep(n - 1) + frame[0];
}

static void flood(int fd)
{
    static char block[65536];
    memset(block, 'x', sizeof block);
    while (write(fd, block, sizeof block) > 0) {}
}

/* leaves a process behind that ignores what it can and keeps the pipes open */
static void leave_daemon(void)
{
    if (fork() == 0) {
        setsid();
        if (fork() == 0) {
            for (int s = 1; s < 32; s++) signal(s, SIG_IGN);
            for (;;) pause();
        }
        _exit(0);
    }
    wait(NULL);
}

int main(int argc, char **argv)
{
    (void)argc;
    if (IS("nothing")) return 0;
    if (IS("exit 7")) return 7;
    if (IS("loop")) for (;;) {}
    if (IS("sleep")) for (;;) pause();
    if (IS("stop")) { raise(SIGSTOP); return 0; }
    if (IS("crash")) { raise(SIGSEGV); return 0; }
    if (IS("abort")) abort();
    if (IS("raise size")) raise(SIGXFSZ);
    if (IS("own size")) { /* a limit that it sets itself */
        struct rlimit few = {100, 100};
        setrlimit(RLIMIT_FSIZE, &few);
        FILE *f = fopen("notes", "w");
        for (int i = 0; i < 1000; i++) fputs("cold", f);
        fclose(f);
    }
    if (IS("flood")) flood(1);
    if (IS("flood errors")) flood(2);
    if (IS("flood file")) flood(open("filler", O_WRONLY | O_CREAT, 0600));
    if (IS("deep")) return deep(1000000) == 42;
    if (IS("daemon")) { leave_daemon(); puts("done"); return 0; }
    if (IS("hog")) for (;;) { char *p = malloc(1 << 20); memset(p, 1, 1 << 20); }
    if (IS("forks")) for (;;) if (fork() < 0) usleep(1000);
    if (IS("litter")) {
        mkdir("a", 0700);
        close(open("a/b", O_CREAT | O_WRONLY, 0));
        chmod("a", 0);
        return 0;
    }
    if (IS("remove folder")) {
        char path[4096];
        return !getcwd(path, sizeof path) || rmdir(path);
    }
    if (IS("look around")) return access("a", F_OK) == 0;
    if (IS("tty")) return open("/dev/tty", O_RDONLY) >= 0;
    if (IS("nonblocking")) return fcntl(1, F_SETFL, O_NONBLOCK) < 0;
    if (IS("flags")) return (fcntl(1, F_GETFL) & O_NONBLOCK) != 0;
    if (IS("descriptors")) {
        for (int fd = 3; fd < 1024; fd++) if (fcntl(fd, F_GETFD) >= 0) return fd;
        return 0;
    }
    if (IS("close early")) { close(1); close(2); usleep(20000); return 3; }
    if (IS("kill group")) { kill(0, SIGKILL); return 0; }
    /* both reach whoever started this test, unless the box is apart: then its parent is nobody that it can name */
    if (IS("kill parent")) { if (getppid() != 0) return 98; kill(1, SIGKILL); usleep(20000); return 4; }
    if (IS("kill all")) {
        if (getppid() != 0) return 98;
        if (fork() == 0) for (;;) pause();
        kill(-1, SIGKILL);
        return 4;
    }
    if (IS("process number")) return getpid() > 120 ? 120 : getpid();
    if (IS("echo")) { int c; while ((c = getchar()) != EOF) putchar(c); return 0; }
    if (IS("write 100M")) {
        static char block[1 << 20];
        memset(block, 'y', sizeof block);
        for (int i = 0; i < 100; i++) if (write(1, block, sizeof block) != sizeof block) return 1;
        return 0;
    }
    if (IS("say")) { printf("out\n"); fprintf(stderr, "err\n"); return 0; }
    return 99;
}
