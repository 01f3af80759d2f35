/* reach WHAT [PATH ...]: tries to get at what is not its own. Exits with 0 if
 * nothing was got, and otherwise with the number of the try that worked. */
#define _GNU_SOURCE
#include <errno.h>
#include <fcntl.h>
#include <netinet/in.h>
#include <sched.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/mount.h>
#include <sys/ptrace.h>
#include <sys/socket.h>
#include <sys/stat.h>
#include <sys/sysmacros.h>
#include <sys/uio.h>
#include <sys/un.h>
#include <sys/wait.h>
#include <unistd.h>

#define IS(word) (!strcmp(argv[1], word))

static int readable(const char *path)
{
    char byte;
    int fd = open(path, O_RDONLY | O_NONBLOCK);
    return fd >= 0 && read(fd, &byte, 1) == 1;
}

static int read_any(int count, char **paths)
{
    for (int i = 0; i < count; i++)
        if (readable(paths[i])) { fprintf(stderr, "read %s\n", paths[i]); return i + 1; }
    return 0;
}

static int write_any(int count, char **paths)
{
    for (int i = 0; i < count; i++)
        if (open(paths[i], O_WRONLY | O_CREAT, 0600) >= 0 || mkdir(paths[i], 0700) == 0) {
            fprintf(stderr, "wrote %s\n", paths[i]);
            return i + 1;
        }
    return 0;
}

static int reach_parent(void)
{
    char path[64];
    int parent = getppid();
    static const char *const files[] = {"mem", "environ", "maps", "cwd", "root/etc/passwd", "fd/3", "fd/4", "map_files"};
    for (int i = 0; i < 8; i++) {
        char target[64];
        sprintf(path, "/proc/%d/%s", parent, files[i]);
        if (readable(path) || readlink(path, target, sizeof target) > 0) return i + 1;
    }
    if (ptrace(PTRACE_ATTACH, parent, NULL, NULL) == 0) return 20;
    if (ptrace(PTRACE_SEIZE, parent, NULL, NULL) == 0) return 21;
    long word;
    struct iovec here = {&word, sizeof word}, there = {(void *)0x400000, sizeof word};
    if (process_vm_readv(parent, &here, 1, &there, 1, 0) > 0) return 22;
    return 0;
}

/* A socket by itself leads nowhere. */
static int open_sockets(const char *path, int port)
{
    static const int families[] = {AF_INET, AF_INET6, AF_PACKET, AF_NETLINK, AF_VSOCK};
    static const int types[] = {SOCK_STREAM, SOCK_DGRAM, SOCK_RAW};
    for (int f = 0; f < 5; f++)
        for (int t = f < 2 ? 1 : 0; t < 3; t++)
            if (socket(families[f], types[t], 0) >= 0) return 1 + 10 * f + t;
    struct sockaddr_in host = {.sin_family = AF_INET, .sin_port = htons(port), .sin_addr.s_addr = htonl(INADDR_LOOPBACK)};
    int s = socket(AF_INET, SOCK_STREAM, 0);
    if (connect(s, (struct sockaddr *)&host, sizeof host) == 0) return 50;
    if (sendto(s, "x", 1, MSG_FASTOPEN, (struct sockaddr *)&host, sizeof host) >= 0) return 51;
    if (listen(s, 1) == 0) return 52;
    struct sockaddr_un to = {.sun_family = AF_UNIX};
    strncpy(to.sun_path, path, sizeof to.sun_path - 1);
    s = socket(AF_UNIX, SOCK_STREAM, 0);
    if (connect(s, (struct sockaddr *)&to, sizeof to) == 0) return 60;
    if (socket(AF_UNIX, SOCK_DGRAM, 0) >= 0) return 61;
    int pair[2];
    if (socketpair(AF_UNIX, SOCK_DGRAM, 0, pair) == 0) return 62;
    if (socketpair(AF_UNIX, SOCK_STREAM, 0, pair) != 0) return 63; /* which is harmless, and useful */
    return 0;
}

/* What runtimes do only to see what they could do. */
static int look_around(const char *path)
{
    if (socket(AF_INET6, SOCK_STREAM, 0) < 0 && errno == EACCES) return 1;
    if (socket(AF_INET, SOCK_STREAM, 0) < 0) return 2;
    struct sockaddr_un to = {.sun_family = AF_UNIX};
    strncpy(to.sun_path, path, sizeof to.sun_path - 1);
    if (connect(socket(AF_UNIX, SOCK_STREAM, 0), (struct sockaddr *)&to, sizeof to) == 0 || errno != ECONNREFUSED) return 3;
    return 0;
}

static int change_surroundings(void)
{
    if (mount("none", "/tmp", "tmpfs", 0, "") == 0) return 1;
    if (umount2("/tmp", MNT_DETACH) == 0) return 2;
    if (unshare(CLONE_NEWUSER) == 0) return 3;
    if (unshare(CLONE_NEWNS) == 0) return 4;
    if (chroot("/tmp") == 0) return 5;
    if (mknod("disk", S_IFBLK | 0600, makedev(8, 0)) == 0 && readable("disk")) return 6;
    if (mount(NULL, "/", NULL, MS_REMOUNT | MS_BIND, "") == 0) return 7;
    if (setuid(0) == 0 && getuid() != 0) return 8;
    return 0;
}

int main(int argc, char **argv)
{
    if (IS("read")) return read_any(argc - 2, argv + 2);
    if (IS("write")) return write_any(argc - 2, argv + 2);
    if (IS("parent")) return reach_parent();
    if (IS("sockets")) return open_sockets(argc > 2 ? argv[2] : "/none", argc > 3 ? atoi(argv[3]) : 7);
    if (IS("look around")) return look_around(argc > 2 ? argv[2] : "/none");
    if (IS("surroundings")) return change_surroundings();
    if (IS("input")) return open("/proc/self/fd/0", O_RDWR) >= 0 || open("/dev/stdin", O_WRONLY) >= 0;
    if (IS("private")) { /* what it must have all the same */
        static const char *const own[] = {"here", "/tmp/there", "/var/tmp/also", "/dev/shm/too"};
        for (int i = 0; i < 4; i++) if (open(own[i], O_WRONLY | O_CREAT, 0600) < 0) return i + 1;
        if (!readable("/dev/urandom") || open("/dev/null", O_WRONLY) < 0) return 9;
        return 0;
    }
    return 99;
}
