// Flushed by hand.
#include <stdio.h>
#include <string.h>
int main(void)
{
    int low = 1, high;
    char word[20];
    if (scanf("%d", &high) != 1) return 1;
    while (low < high) {
        int middle = low + (high - low) / 2;
        printf("probe %d\n", middle);
        fflush(stdout);
        if (scanf("%19s", word) != 1) return 1;
        if (!strcmp(word, "deeper")) low = middle + 1;
        else high = middle;
    }
    printf("depth %d\n", low);
    return 0;
}
