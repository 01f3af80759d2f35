// A temporary file, a file in the working folder, and much on standard error.
#include <stdio.h>
#include <unistd.h>
int main(void)
{
    long long n, x, sum = 0;
    FILE *t = tmpfile(), *f = fopen("notes.txt", "w+");
    if (!t || !f || scanf("%lld", &n) != 1) return 1;
    while (n-- > 0 && scanf("%lld", &x) == 1) fprintf(t, "%lld\n", x);
    rewind(t);
    while (fscanf(t, "%lld", &x) == 1) sum += x;
    fprintf(f, "%lld\n", sum);
    rewind(f);
    if (fscanf(f, "%lld", &sum) != 1) return 1;
    for (int i = 0; i < 1000; i++) fputs("debug: cold\n", stderr);
    printf("%lld\n", sum);
    unlink("notes.txt");
    return 0;
}
