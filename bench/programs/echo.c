/* A candidate that answers each line with the same line. */
#include <stdio.h>

int main(void)
{
    char line[100];
    while (fgets(line, sizeof line, stdin)) {
        fputs(line, stdout);
        fflush(stdout);
    }
    return 0;
}
