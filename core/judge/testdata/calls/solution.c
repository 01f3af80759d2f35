#include <math.h>
#include <stdbool.h>
#include <stdlib.h>
#include <string.h>

int **rows(int **grid, int height, int *widths, int *returned, int **returnedWidths) {
    int **all = malloc(height * sizeof *all + 1);
    *returnedWidths = malloc(height * sizeof(int) + 1);
    for (int i = 0; i < height; i++) {
        all[i] = grid[height - 1 - i];
        (*returnedWidths)[i] = widths[height - 1 - i];
    }
    *returned = height;
    return all;
}

char **greet(char **words, size_t n, char sign, size_t *returned) {
    for (size_t i = 0; i < n; i++) {
        size_t length = strlen(words[i]);
        words[i] = realloc(words[i], length + 2);
        words[i][length] = sign;
        words[i][length + 1] = 0;
    }
    *returned = n;
    return words;
}

long long *measure(long long n, double x, const int *cap) {
    static long long result;
    result = n;
    if (!cap) return signbit(x) ? NULL : &result;
    if (*cap < n) result = *cap;
    return &result;
}

void extremes(const int temps[], int n, bool warm, int *least, int *most, double *mean) {
    *least = temps[0], *most = temps[0], *mean = 0;
    for (int i = 0; i < n; i++) {
        if (temps[i] < *least) *least = temps[i];
        if (temps[i] > *most) *most = temps[i];
        *mean += temps[i] / (double)n;
    }
    if (!warm) *most = 0;
}

const char *echo(const char *n) { return n; }
