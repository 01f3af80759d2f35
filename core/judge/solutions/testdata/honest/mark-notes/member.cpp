// A reference to a member is returned.
#include <string>
#include <vector>
class Solution {
    std::vector<std::string> out;
public:
    const std::vector<std::string> &markNotes(std::vector<std::string> notes, char mark) {
        for (auto &n : notes) out.push_back(n + mark);
        return out;
    }
};
