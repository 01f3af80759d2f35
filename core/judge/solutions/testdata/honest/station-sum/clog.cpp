// Mixed ways to print, and a static that prints at the end.
#include <cstdio>
#include <iostream>
#include <string>
struct Last {
    std::string text;
    ~Last() { std::puts(text.c_str()); }
} last;
int main() {
    long long n = 0, x, sum = 0;
    std::cin >> n;
    while (n-- && std::cin >> x) sum += x;
    std::clog << "sum " << sum << std::endl;
    last.text = std::to_string(sum);
}
