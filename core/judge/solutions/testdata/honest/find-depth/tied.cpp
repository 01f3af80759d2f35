// Tied streams flush by themselves.
#include <iostream>
#include <string>
int main() {
    int low = 1, high;
    std::cin >> high;
    while (low < high) {
        int middle = low + (high - low) / 2;
        std::cout << "probe " << middle << '\n';
        std::string word;
        std::cin >> word;
        if (word == "deeper") low = middle + 1;
        else high = middle;
    }
    std::cout << "depth " << low << std::endl;
}
