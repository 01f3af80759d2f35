// Before in place of behind.
#include <string>
#include <vector>
std::vector<std::string> markNotes(std::vector<std::string> notes, char mark) {
    for (auto &n : notes) n = mark + n;
    return notes;
}
