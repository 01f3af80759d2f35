#include <stdlib.h>

/* A struct of my own, with an array that is large enough. */
typedef struct Camp {
    long value;
    struct Camp *neighbours[100];
} Camp;

static Camp *made[101];

static Camp *copy(Camp *camp) {
    if (!camp) return NULL;
    if (made[camp->value]) return made[camp->value];
    Camp *one = made[camp->value] = calloc(1, sizeof *one);
    one->value = camp->value;
    for (int i = 0; i < 100 && camp->neighbours[i]; i++) one->neighbours[i] = copy(camp->neighbours[i]);
    return one;
}

Camp *copied(Camp *camp) {
    for (int i = 0; i < 101; i++) made[i] = NULL;
    return copy(camp);
}
