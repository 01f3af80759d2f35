// A list that is returned, from views.
#include <list>
#include <string>
#include <string_view>
#include <vector>
std::list<std::string> markNotes(const std::vector<std::string> &notes, char mark) {
    std::list<std::string> out;
    for (std::string_view n : notes) out.emplace_back(std::string(n) + mark);
    return out;
}
