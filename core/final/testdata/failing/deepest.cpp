#include <algorithm>
#include <stdexcept>
#include <utility>
#include <vector>

std::pair<int, std::vector<int>> deepest(const std::vector<int> &depths) {
    int most = 0;
    std::vector<int> places;
    for (int depth : depths) {
        if (depth < 0) throw std::invalid_argument("above the ice");
        most = std::max(most, depth);
    }
    for (int i = 0; i < (int)depths.size(); i++)
        if (depths[i] == most) places.push_back(i);
    return {most, places};
}
