// It keeps its depths in one array, which it also returns: what was returned is not to change by later calls.
#include <stdio.h>
#include <stdlib.h>
#include <string.h>

typedef struct depth_log {
    int count;
    int depths[1000];
} DepthLog;

DepthLog *depth_log_new(void) { return calloc(1, sizeof(DepthLog)); }

void depth_log_add(struct depth_log *log, int depth) { log->depths[log->count++] = depth; }

int *depth_log_all(DepthLog *log, int *returnedSize) {
    *returnedSize = log->count;
    return log->depths;
}

void depth_log_fill(DepthLog *log, int *depths, int n) {
    for (int i = 0; i < n; i++) depth_log_add(log, depths[i]);
}

char *depth_log_summary(DepthLog *log) {
    char *text = malloc(12 * log->count + 1);
    char *at = text;
    *at = 0;
    for (int i = 0; i < log->count; i++) at += sprintf(at, "%d ", log->depths[i]);
    return text;
}

void depth_log_restore(DepthLog *log, const char *text) {
    log->count = 0;
    for (char *at = (char *)text; *at;) {
        depth_log_add(log, strtol(at, &at, 10));
        while (*at == ' ') at++;
    }
}
