// alone: too many probes. It goes down by a hundredth at a time.
#include <iostream>
#include <string>

int main() {
    long long n, probes, low = 1;
    std::cin >> n >> probes;
    long long high = n;
    while (low < high) {
        long long middle = low + (high - low) / 100;
        std::cout << "probe " << middle << std::endl;
        std::string answer;
        std::cin >> answer;
        if (answer == "deeper") low = middle + 1;
        else high = middle;
    }
    std::cout << "depth " << low << std::endl;
}
