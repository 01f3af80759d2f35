// A generic function, as C++20 writes it.
#include <string>
#include <vector>
auto markNotes(const auto &notes, auto mark) {
    std::vector<std::string> out;
    for (const auto &n : notes) out.push_back(n + mark);
    return out;
}
