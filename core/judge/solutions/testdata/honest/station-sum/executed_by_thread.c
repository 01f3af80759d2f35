// It executes itself again from a thread that is not its first.
#include <pthread.h>
#include <stdio.h>
#include <unistd.h>
static char **args;
static void *again(void *unused)
{
    char *list[] = {args[0], (char *)"again", NULL};
    execv("/proc/self/exe", list);
    return unused;
}
int main(int argc, char **argv)
{
    if (argc == 1) {
        pthread_t id;
        args = argv;
        pthread_create(&id, NULL, again, NULL);
        pthread_join(id, NULL);
        return 1;
    }
    long long n, x, sum = 0;
    if (scanf("%lld", &n) != 1) return 1;
    while (n-- > 0 && scanf("%lld", &x) == 1) sum += x;
    printf("%lld\n", sum);
    return 0;
}
