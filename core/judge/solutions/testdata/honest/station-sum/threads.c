// Threads, of which one reads and one writes.
#include <pthread.h>
#include <stdio.h>
static long long sum;
static void *add(void *unused)
{
    long long n, x;
    if (scanf("%lld", &n) == 1) while (n-- > 0 && scanf("%lld", &x) == 1) sum += x;
    return unused;
}
static void *show(void *unused) { printf("%lld\n", sum); return unused; }
int main(void)
{
    pthread_t a, b;
    pthread_create(&a, NULL, add, NULL);
    pthread_join(a, NULL);
    pthread_create(&b, NULL, show, NULL);
    pthread_join(b, NULL);
    return 0;
}
