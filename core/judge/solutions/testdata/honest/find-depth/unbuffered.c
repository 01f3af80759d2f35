// No buffers, and the last line without an end.
#include <stdio.h>
#include <string.h>
int main(void)
{
    int low = 1, high;
    char word[20];
    setvbuf(stdout, NULL, _IONBF, 0);
    if (scanf("%d", &high) != 1) return 1;
    while (low < high) {
        int middle = low + (high - low) / 2;
        printf("probe ");
        printf("%d", middle);
        printf("\n");
        if (scanf("%19s", word) != 1) return 1;
        if (!strcmp(word, "deeper")) low = middle + 1;
        else high = middle;
    }
    printf("depth %d", low);
    return 0;
}
