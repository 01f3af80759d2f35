// The locale of the session, and wide characters.
#include <locale.h>
#include <stdio.h>
#include <wchar.h>
int main(void)
{
    wchar_t line[1000];
    setlocale(LC_ALL, "");
    while (fgetws(line, 1000, stdin)) {
        size_t n = wcslen(line);
        if (n && line[n - 1] == L'\n') line[--n] = 0;
        printf("%zu %ls\n", n, line);
    }
    return 0;
}
