// Allocated texts in an allocated array.
#include <stdlib.h>
#include <string.h>
char **mark_notes(char **notes, int n, char mark, int *returned)
{
    char **out = malloc((n + 1) * sizeof *out);
    for (int i = 0; i < n; i++) {
        size_t long_ = strlen(notes[i]);
        out[i] = calloc(long_ + 2, 1);
        memcpy(out[i], notes[i], long_);
        out[i][long_] = mark;
    }
    *returned = n;
    return out;
}
