// Halves what is left with each probe; endl flushes.
#include <iostream>
#include <string>

int main() {
    long long n, probes;
    std::cin >> n >> probes;
    long long low = 1, high = n;
    while (low < high) {
        long long middle = (low + high) / 2;
        std::cout << "probe " << middle << std::endl;
        std::string answer;
        std::cin >> answer;
        if (answer == "deeper") low = middle + 1;
        else high = middle;
    }
    std::cout << "depth " << low << std::endl;
}
