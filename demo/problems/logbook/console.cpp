// Waits for the log on standard input, where there is none.
#include <algorithm>
#include <iostream>
#include <set>
#include <string>
int main() {
    std::string day, clock, way, name;
    std::set<std::string> outside;
    std::size_t most = 0;
    while (std::cin >> day >> clock >> way >> name) {
        if (way == "out") outside.insert(name); else outside.erase(name);
        most = std::max(most, outside.size());
    }
    std::cout << most << "\n";
}
