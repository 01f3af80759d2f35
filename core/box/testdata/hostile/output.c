/* output WHAT: writes without end, or what nobody wants to see. */
#define _GNU_SOURCE
#include <fcntl.h>
#include <signal.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/resource.h>
#include <sys/stat.h>
#include <unistd.h>

#define IS(word) (!strcmp(argv[1], word))

static char block[1 << 16];

static void pour(int fd)
{
    while (write(fd, block, sizeof block) > 0) {}
}

int main(int argc, char **argv)
{
    (void)argc;
    memset(block, 'x', sizeof block);
    signal(SIGXFSZ, SIG_IGN);
    if (IS("stdout")) { signal(SIGPIPE, SIG_IGN); for (;;) pour(1); }
    if (IS("stderr")) for (;;) pour(2);
    if (IS("file")) { signal(SIGXFSZ, SIG_DFL); pour(open("filler", O_WRONLY | O_CREAT, 0600)); pause(); }
    if (IS("raised limit")) {
        struct rlimit r;
        getrlimit(RLIMIT_FSIZE, &r);
        r.rlim_cur = r.rlim_max;
        setrlimit(RLIMIT_FSIZE, &r);
        pour(open("filler", O_WRONLY | O_CREAT, 0600));
        return 0;
    }
    if (IS("many files")) {
        for (int i = 0; i < 100000; i++) {
            char name[32];
            sprintf(name, "f%d", i);
            int fd = open(name, O_WRONLY | O_CREAT, 0600);
            if (fd < 0 || write(fd, block, sizeof block) < (long)sizeof block) break;
            close(fd);
        }
        return 0;
    }
    if (IS("empty files")) {
        for (int i = 0; i < 1000000; i++) {
            char name[32];
            sprintf(name, "f%d", i);
            int fd = open(name, O_WRONLY | O_CREAT, 0600);
            if (fd < 0) break;
            close(fd);
        }
        return 0;
    }
    if (IS("deep folders")) {
        for (int i = 0; i < 1500; i++) if (mkdir("d", 0700) || chdir("d")) break;
        return 0;
    }
    if (IS("close early")) { close(0); close(1); close(2); usleep(20000); return 3; }
    if (IS("read nothing")) return 0;
    if (IS("long line")) {
        for (int i = 0; i < 1600; i++) if (write(1, block, sizeof block) < 0) return 1;
        return 0;
    }
    if (IS("garbage")) { fwrite("\xff\xfe\0\x1b[31m\x1b]0;x\a\r\n", 1, 16, stdout); return 0; }
    return 99;
}
