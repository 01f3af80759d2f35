// Bytes are cut from the end.
#include <string>
#include <vector>
std::vector<std::string> markNotes(std::vector<std::string> notes, char mark) {
    for (auto &n : notes) n = n.substr(0, 9) + mark;
    return notes;
}
