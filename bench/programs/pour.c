/* Writes one gigabyte of lines, all alike. */
#include <stdio.h>
#include <string.h>

int main(void)
{
    static char block[1 << 16];
    for (unsigned i = 0; i < sizeof block; i += 16) memcpy(block + i, "1234567 89 1011\n", 16);
    for (int i = 0; i < 15259; i++) fwrite(block, 1, sizeof block, stdout);
    return 0;
}
