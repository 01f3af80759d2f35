// Every thousandth line is flushed, and the others come when they come.
#include <iostream>
int main() {
    int n;
    std::cin >> n;
    for (int i = 1; i <= n; i++) {
        std::cout << "day " << i << ": " << i * 7 % 40 - 20 << '\n';
        if (i % 1000 == 0) std::cout.flush();
    }
}
