// An array in brackets and a size_t.
#include <stddef.h>
#include <stdint.h>
int32_t warmDays(int32_t temps[], size_t n, int64_t limit)
{
    int32_t found = 0;
    for (size_t i = 0; i < n; i++) found += temps[i] > limit;
    return found;
}
