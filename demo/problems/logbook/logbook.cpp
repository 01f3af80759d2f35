// Opens the file that the problem names; counts who is outside.
#include <algorithm>
#include <fstream>
#include <iostream>
#include <set>
#include <string>
int main() {
    std::ifstream log("logbook.txt");
    std::string day, clock, way, name;
    std::set<std::string> outside;
    std::size_t most = 0;
    while (log >> day >> clock >> way >> name) {
        if (way == "out") outside.insert(name); else outside.erase(name);
        most = std::max(most, outside.size());
    }
    std::cout << most << "\n";
}
