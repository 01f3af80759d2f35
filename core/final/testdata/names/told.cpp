#include <numeric>
#include <string>
#include <vector>

std::vector<std::string> told(int word, std::vector<int> next, std::vector<std::string> lines, std::string rest, double left, std::vector<int> used, int len, std::string text) {
    int sum = word + std::accumulate(next.begin(), next.end(), 0) + (int)(left * 2) + std::accumulate(used.begin(), used.end(), 0) + len - 5;
    lines.insert(lines.end(), {rest, text, std::to_string(sum)});
    return lines;
}
