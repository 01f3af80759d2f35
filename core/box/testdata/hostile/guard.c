/* guard WHAT: turns on what watches it. Exits with 0 if nothing was got, and otherwise
 * with the number of the try that worked. */
#define _GNU_SOURCE
#include <dirent.h>
#include <errno.h>
#include <fcntl.h>
#include <sched.h>
#include <signal.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/mman.h>
#include <sys/ptrace.h>
#include <sys/resource.h>
#include <sys/stat.h>
#include <sys/syscall.h>
#include <sys/time.h>
#include <sys/uio.h>
#include <sys/wait.h>
#include <sys/xattr.h>
#include <time.h>
#include <unistd.h>

#define IS(word) (!strcmp(argv[1], word))
#define MOST 400

static int own(int pid) { return pid == getpid(); }

/* every number that there could be, and the parent */
static int others(int (*try)(int))
{
    int parent = getppid();
    if (parent > 0 && try(parent)) return 1;
    for (int pid = 1; pid < MOST; pid++) if (!own(pid) && try(pid)) return pid + 1;
    return 0;
}

static int limits(int pid)
{
    static const int kinds[] = {RLIMIT_NOFILE, RLIMIT_CPU, RLIMIT_AS, RLIMIT_FSIZE, RLIMIT_STACK, RLIMIT_NPROC, RLIMIT_MEMLOCK, RLIMIT_SIGPENDING};
    struct rlimit one = {1, 1};
    int got = 0;
    for (unsigned i = 0; i < sizeof kinds / sizeof *kinds; i++) got |= prlimit(pid, kinds[i], &one, NULL) == 0;
    return got;
}

static int look_at_limits(int pid)
{
    struct rlimit now;
    return prlimit(pid, RLIMIT_NOFILE, NULL, &now) == 0;
}

static int nicer(int pid) { return setpriority(PRIO_PROCESS, pid, 19) == 0 || setpriority(PRIO_PGRP, pid, 19) == 0; }

static int idle(int pid)
{
    struct sched_param none = {0};
    cpu_set_t first;
    CPU_ZERO(&first);
    CPU_SET(0, &first);
    sched_setscheduler(pid, SCHED_IDLE, &none); /* may succeed, and must do nothing */
    sched_setaffinity(pid, sizeof first, &first);
    syscall(SYS_ioprio_set, 1, pid, 3 << 13);
    return sched_getscheduler(pid) == SCHED_IDLE;
}

static int numbers[] = {SIGILL, SIGTRAP, SIGBUS, SIGFPE, SIGSEGV, SIGTERM, SIGKILL, SIGSTOP, SIGURG, SIGPROF, SIGCHLD, SIGCONT, 34, 64};

/* These may be allowed, and must not hurt. */
static int signals(int pid)
{
    union sigval value = {0};
    for (unsigned i = 0; i < sizeof numbers / sizeof *numbers; i++) {
        syscall(SYS_tgkill, pid, pid, numbers[i]);
        syscall(SYS_tkill, pid, numbers[i]);
        if (pid > 0) kill(pid, numbers[i]);
        sigqueue(pid, numbers[i], value);
    }
    return 0;
}

static int file_signals(int pid)
{
    int pair[2];
    if (pipe(pair)) return 0;
    int got = fcntl(pair[0], F_SETOWN, pid) == 0;
    got |= fcntl(pair[0], F_SETSIG, SIGKILL) == 0;
    close(pair[0]);
    close(pair[1]);
    return got;
}

static int memory(int pid)
{
    char word[8], path[64];
    struct iovec here = {word, 8}, there = {(void *)0x400000, 8};
    if (process_vm_readv(pid, &here, 1, &there, 1, 0) > 0) return 1;
    if (ptrace(PTRACE_ATTACH, pid, 0, 0) == 0 || ptrace(PTRACE_SEIZE, pid, 0, 0) == 0) return 1;
    static const char *const files[] = {"mem", "environ", "maps", "cwd/x", "root/etc/passwd", "fd/3", "io", "auxv", "stack", "ns/pid"};
    for (int i = 0; i < 10; i++) {
        snprintf(path, sizeof path, "/proc/%d/%s", pid, files[i]);
        int fd = open(path, O_RDONLY);
        if (fd >= 0 && read(fd, word, 1) > 0) return 1;
        if (fd >= 0) close(fd);
    }
    return 0;
}

static int visible(void)
{
    int seen = 0;
    DIR *dir = opendir("/proc");
    for (struct dirent *e; dir && (e = readdir(dir));) {
        char path[300], name[64] = "";
        if (atoi(e->d_name) == 0 || own(atoi(e->d_name))) continue;
        snprintf(path, sizeof path, "/proc/%s/comm", e->d_name);
        int fd = open(path, O_RDONLY);
        if (fd >= 0 && read(fd, name, 63) > 0 && strstr(name, "supervisor")) seen++;
    }
    return seen;
}

static int leave_state(void)
{
    struct rlimit one = {8, 8}, none = {0, 0};
    struct sched_param zero = {0};
    cpu_set_t first;
    CPU_ZERO(&first);
    CPU_SET(0, &first);
    setpriority(PRIO_PROCESS, 0, 19);
    setpriority(PRIO_USER, 0, 19);
    sched_setscheduler(0, SCHED_BATCH, &zero);
    sched_setaffinity(0, sizeof first, &first);
    setrlimit(RLIMIT_NPROC, &one);
    setrlimit(RLIMIT_MEMLOCK, &none);
    umask(0777);
    mkdir("/tmp/left", 0700);
    rmdir("/tmp/left");
    open("/tmp/file", O_WRONLY | O_CREAT, 0600);
    symlink("/etc", "/tmp/link");
    setxattr("/tmp", "user.left", "1", 1, 0);
    for (int fd = 0; fd < 3; fd++) fcntl(fd, F_SETFL, O_NONBLOCK | O_APPEND);
    for (int fd = 1; fd < 3; fd++) fcntl(fd, F_SETPIPE_SZ, 4096);
    lseek(0, 0, SEEK_END);
    signal(SIGPIPE, SIG_IGN);
    for (int i = 0; i < 30; i++) if (fork() == 0) _exit(0); /* so that process numbers go up */
    chmod("/tmp", 0);
    return 0;
}

/* a program that stepped back behind others would be slow to end */
static int step_back(void)
{
    struct sched_param zero = {0};
    if (setpriority(PRIO_PROCESS, 0, 19) || sched_setscheduler(0, SCHED_IDLE, &zero)) return 1;
    return getpriority(PRIO_PROCESS, 0) != 0 || sched_getscheduler(0) != SCHED_OTHER ? 2 : 0;
}

/* what was left would show up here */
static int find_state(void)
{
    struct stat s;
    struct rlimit now;
    cpu_set_t all;
    char name[8];
    int entries = 0;
    if (getpriority(PRIO_PROCESS, 0) != 0) return 1;
    if (sched_getscheduler(0) != SCHED_OTHER) return 2;
    if (sched_getaffinity(0, sizeof all, &all) || CPU_COUNT(&all) < sysconf(_SC_NPROCESSORS_ONLN)) return 3;
    if (getrlimit(RLIMIT_NPROC, &now) || now.rlim_cur == 8) return 4;
    if (umask(022) == 0777) return 5;
    if (stat(".", &s) || (s.st_mode & 0777) != 0700) return 6;
    DIR *dir = opendir(".");
    for (struct dirent *e; dir && (e = readdir(dir));) if (e->d_name[0] != '.') entries += strncmp(e->d_name, "cold-", 5) != 0;
    if (!dir || entries) return 7;
    if (getxattr(".", "user.left", name, 8) > 0) return 8;
    for (int fd = 1; fd < 3; fd++) {
        if (fcntl(fd, F_GETFL) & (O_NONBLOCK | O_APPEND)) return 9;
        if (fcntl(fd, F_GETPIPE_SZ) == 4096) return 10;
    }
    if (lseek(0, 0, SEEK_CUR) > 0) return 11;
    if (signal(SIGPIPE, SIG_DFL) == SIG_IGN) return 12;
    if (open("new", O_WRONLY | O_CREAT, 0600) < 0) return 13;
    if (access("/proc/sys/kernel/ns_last_pid", F_OK) == 0 && getpid() > 100 && getppid() == 0) return 14;
    return 0;
}

static int rewrite_input(void)
{
    char byte = 'x';
    static const char *const names[] = {"/proc/self/fd/0", "/dev/stdin", "/dev/fd/0", "/proc/thread-self/fd/0"};
    if (write(0, &byte, 1) > 0) return 1;
    if (pwrite(0, &byte, 1, 0) > 0) return 2;
    if (ftruncate(0, 0) == 0) return 3;
    for (int i = 0; i < 4; i++) {
        int fd = open(names[i], O_RDWR);
        if (fd < 0) continue;
        if (write(fd, &byte, 1) > 0) return 10 + i;
        if (ftruncate(fd, 0) == 0) return 20 + i;
        if (mmap(NULL, 1, PROT_WRITE, MAP_SHARED, fd, 0) != MAP_FAILED) return 30 + i;
        if (fallocate(fd, 0, 0, 1 << 20) == 0) return 40 + i;
    }
    for (int i = 0; i < 4; i++) if (truncate(names[i], 0) == 0 || (open(names[i], O_RDWR | O_TRUNC) >= 0 && lseek(0, 0, SEEK_END) == 0)) return 50 + i;
    void *page = mmap(NULL, 4096, PROT_READ, MAP_SHARED, 0, 0);
    if (page != MAP_FAILED && mprotect(page, 4096, PROT_READ | PROT_WRITE) == 0) return 60;
    return 0;
}

/* what only leads outside, or past whoever looks */
static int strange_calls(void)
{
    static char room[4096];
    struct rlimit one = {1, 1};
    int pidfd;
    long child = syscall(SYS_clone, CLONE_UNTRACED | SIGCHLD, 0, 0, 0, 0);
    if (child == 0) _exit(0);
    if (child > 0) return 1;
    if ((child = syscall(SYS_clone, CLONE_PARENT | SIGCHLD, 0, 0, 0, 0)) == 0) _exit(0);
    if (child > 0) return 2;
    if ((child = syscall(SYS_clone, SIGUSR1, 0, 0, 0, 0)) == 0) _exit(0);
    if (child > 0) return 3;
    static unsigned long long arguments[11] = {CLONE_UNTRACED, 0, 0, 0, SIGCHLD};
    if ((child = syscall(SYS_clone3, arguments, sizeof arguments)) == 0) _exit(0);
    if (child > 0) return 4;
    if (unshare(CLONE_NEWUSER) == 0 || unshare(CLONE_NEWPID) == 0 || unshare(CLONE_NEWNET) == 0) return 5;
    if (syscall(425, 8, room) >= 0) return 6; /* io_uring_setup */
    if (syscall(SYS_userfaultfd, 0) >= 0) return 7;
    if (syscall(SYS_perf_event_open, room, 0, -1, -1, 0) >= 0) return 8;
    if (syscall(SYS_keyctl, 0, -3, 0) >= 0) return 9;
    if (syscall(SYS_shmget, 0, 4096, 01600) >= 0 || syscall(SYS_msgget, 0, 01600) >= 0 || syscall(SYS_semget, 0, 1, 01600) >= 0) return 10;
    if (syscall(447, 0) >= 0) return 11; /* memfd_secret */
    if ((pidfd = syscall(434, 1, 0)) >= 0 && syscall(438, pidfd, 0, 0) >= 0) return 12; /* pidfd_getfd */
    if (syscall(SYS_vmsplice, 1, room, 0, 0) >= 0) return 13;
    if (syscall(SYS_add_key, "user", "left", "1", 1, -5) >= 0) return 14;
    if (syscall(SYS_mq_open, "/left", 0100 | 2, 0600, 0) >= 0) return 15;
    if (syscall(SYS_kcmp, getpid(), 1, 1, 0, 0) >= 0 && getppid() == 0) return 16;
    if (syscall(SYS_prlimit64, getpid(), RLIMIT_CORE, &one, 0) == 0) return 17; /* by number, not as oneself */
    if (syscall(0x40000000 | SYS_getpid) > 0) return 18; /* in another manner */
    return 0;
}

int main(int argc, char **argv)
{
    if (IS("kill")) { /* a process outside that is the same user's */
        int victim = atoi(argc > 2 ? argv[2] : "0");
        struct rlimit one = {1, 1};
        union sigval value = {0};
        kill(victim, SIGKILL);
        syscall(SYS_tkill, victim, SIGKILL);
        syscall(SYS_tgkill, victim, victim, SIGKILL);
        kill(-victim, SIGKILL);
        sigqueue(victim, SIGKILL, value);
        prlimit(victim, RLIMIT_CPU, &one, NULL);
        file_signals(victim);
        signals(victim);
        return 0;
    }
    if (IS("strange calls")) return strange_calls();
    if (IS("limits")) return others(limits) || setpriority(PRIO_USER, 0, 19) == 0;
    if (IS("look at limits")) return others(look_at_limits);
    if (IS("nicer")) return others(nicer);
    if (IS("idle")) { others(idle); return 0; }
    if (IS("signals")) { for (int i = 0; i < 3; i++) others(signals); return 0; }
    if (IS("file signals")) return others(file_signals);
    if (IS("memory")) return others(memory);
    if (IS("see")) return visible();
    if (IS("all of the user's")) return kill(-1, SIGKILL) == 0 && 0;
    if (IS("step back")) return step_back();
    if (IS("leave state")) return leave_state();
    if (IS("find state")) return find_state();
    if (IS("rewrite input")) return rewrite_input();
    if (IS("set the clock")) {
        struct timeval zero = {1, 0};
        struct timespec zeros = {1, 0};
        return settimeofday(&zero, NULL) == 0 || clock_settime(CLOCK_REALTIME, &zeros) == 0;
    }
    return 99;
}
