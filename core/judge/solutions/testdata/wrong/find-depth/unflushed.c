// Not flushed.
#include <stdio.h>
#include <string.h>
int main(void) { int low = 1, high; char word[20]; if (scanf("%d", &high) != 1) return 1; while (low < high) { int m = low + (high - low) / 2; printf("probe %d\n", m); if (scanf("%19s", word) != 1) return 1; if (!strcmp(word, "deeper")) low = m + 1; else high = m; } printf("depth %d\n", low); return 0; }
