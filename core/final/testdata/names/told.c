#include <stdio.h>
#include <stdlib.h>
#include <string.h>

char **told(int word, int *next, int n, char **lines, int m, char *rest, double left, int *used, int k, int len, char *text, int *count)
{
    int sum = word + (int)(left * 2) + len - 5;
    for (int i = 0; i < n; i++) sum += next[i];
    for (int i = 0; i < k; i++) sum += used[i];
    char **all = malloc((m + 3) * sizeof *all), *last = malloc(12);
    memcpy(all, lines, m * sizeof *all);
    sprintf(last, "%d", sum);
    all[m] = rest, all[m + 1] = text, all[m + 2] = last;
    *count = m + 3;
    return all;
}
