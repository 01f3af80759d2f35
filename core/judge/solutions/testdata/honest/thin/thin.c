// In place.
#include <stdlib.h>
static int compare(const void *a, const void *b) { return *(const int *)a - *(const int *)b; }
void thin_out(int *temps, int n, int by)
{
    for (int i = 0; i < n; i++) temps[i] -= by;
    qsort(temps, n, sizeof *temps, compare);
}
