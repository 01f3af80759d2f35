#include <string.h>

void renumber(int camps, int **ropes, int n, int *lengths, long long *depths, int k, const char *mass)
{
    for (int i = 0; i < k; i++)
        for (int j = 0; j < n; j++) depths[i] += ropes[j][2];
    if (strlen(mass) != 19) depths[0] = lengths[0];
}
