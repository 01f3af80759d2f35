// Exceptions that are caught, and a stop token.
#include <iostream>
#include <stdexcept>
#include <thread>
int main() {
    long long sum = 0, x;
    std::cin.exceptions(std::ios::failbit);
    try {
        std::cin >> x;
        for (;;) { std::cin >> x; sum += x; }
    } catch (const std::ios_base::failure &) {}
    std::jthread t([&] { std::cout << sum << '\n'; });
}
