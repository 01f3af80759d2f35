// Helpers, a prototype, const pointers and a main.
#include <stdio.h>
#include <stddef.h>
#define WARM(t, l) ((long long)(t) > (l))
static int warm_days_from(const int *temps, int n, long long limit);
int warm_days(const int *temps, int n, long long limit);
int main(void) { puts("not run"); return warm_days(NULL, 0, 0); }
static int warm_days_from(const int *temps, int n, long long limit)
{
    int found = 0;
    while (n-- > 0) found += WARM(*temps++, limit);
    return found;
}
int warm_days(const int *const temps, int n, long long limit) { return warm_days_from(temps, n, limit); }
