// The input is mapped into memory, where that can be done.
#include <stdio.h>
#include <stdlib.h>
#include <sys/mman.h>
#include <sys/stat.h>
#include <unistd.h>
int main(void)
{
    struct stat s;
    if (fstat(0, &s) != 0) return 1;
    char *text = calloc(s.st_size + 1, 1), *mapped = s.st_size ? mmap(NULL, s.st_size, PROT_READ, MAP_PRIVATE, 0, 0) : MAP_FAILED;
    if (mapped != MAP_FAILED) { for (long i = 0; i < s.st_size; i++) text[i] = mapped[i]; }
    else if (read(0, text, s.st_size) < 0) return 1;
    char *at = text;
    long long n = strtoll(at, &at, 10), sum = 0;
    while (n-- > 0) sum += strtoll(at, &at, 10);
    printf("%lld\n", sum);
}
