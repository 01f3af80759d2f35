// By lines, some of which are empty.
#include <iostream>
#include <sstream>
#include <string>
int main() {
    std::string line, all;
    std::getline(std::cin, line);
    long long sum = 0, x;
    while (std::getline(std::cin, line)) {
        std::istringstream in(line);
        while (in >> x) sum += x;
    }
    std::cout << sum << std::endl;
    std::quick_exit(0);
}
