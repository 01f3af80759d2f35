// As such files are pasted: a struct, and functions with its name before theirs.
#include <stdio.h>
#include <stdlib.h>
#include <string.h>

typedef struct {
    int room, count;
    int *beacons;
    char **readings;
} BeaconCache;

BeaconCache* beaconCacheCreate(int room) {
    BeaconCache *c = calloc(1, sizeof *c);
    c->room = room;
    c->beacons = calloc(room + 1, sizeof *c->beacons);
    c->readings = calloc(room + 1, sizeof *c->readings);
    return c;
}

static int find(BeaconCache *c, int beacon) {
    for (int i = 0; i < c->count; i++)
        if (c->beacons[i] == beacon) return i;
    return -1;
}

static void toEnd(BeaconCache *c, int at) {
    int beacon = c->beacons[at];
    char *reading = c->readings[at];
    for (int i = at; i + 1 < c->count; i++) {
        c->beacons[i] = c->beacons[i + 1];
        c->readings[i] = c->readings[i + 1];
    }
    c->beacons[c->count - 1] = beacon;
    c->readings[c->count - 1] = reading;
}

void beaconCachePut(BeaconCache *obj, int beacon, char *reading) {
    int at = find(obj, beacon);
    if (at < 0) {
        if (obj->count == obj->room) {
            toEnd(obj, 0);
            obj->count--;
        }
        at = obj->count++;
    }
    obj->beacons[at] = beacon;
    obj->readings[at] = strdup(reading);
    toEnd(obj, at);
}

char *beaconCacheGet(BeaconCache *obj, int beacon) {
    int at = find(obj, beacon);
    if (at < 0) return NULL;
    toEnd(obj, at);
    return obj->readings[obj->count - 1];
}

int beaconCacheSize(BeaconCache *obj) { return obj->count; }

void beaconCacheFree(BeaconCache *obj) {
    free(obj->beacons);
    free(obj->readings);
    free(obj);
}

/**
 * BeaconCache* obj = beaconCacheCreate(room);
 * beaconCachePut(obj, beacon, reading);
 */
