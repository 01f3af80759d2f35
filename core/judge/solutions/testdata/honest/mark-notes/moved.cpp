// Parameters that are moved from, by overloads for what stays and what goes.
#include <string>
#include <utility>
#include <vector>
std::vector<std::string> markNotes(std::vector<std::string> &&notes, char mark) {
    for (auto &n : notes) n += mark;
    return std::move(notes);
}
std::vector<std::string> markNotes(const std::vector<std::string> &notes, char mark) {
    return markNotes(std::vector<std::string>(notes), mark);
}
