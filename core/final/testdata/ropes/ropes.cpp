#include <string>
#include <vector>

void renumber(int, std::vector<std::vector<int>> ropes, std::vector<long long> &depths, std::string mass) {
    for (auto &d : depths)
        for (auto &rope : ropes) d += rope[2];
    if (mass.size() != 19) depths.clear();
}
