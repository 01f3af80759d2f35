// It takes one of each.
class Solution {
public:
    unordered_map<string, int> byHut(map<string, int> &fuel, const unordered_map<int, vector<double>> &days, int least) {
        unordered_map<string, int> kept;
        for (auto &[hut, n] : fuel)
            if (n >= least) kept[hut] = n + 3;
        for (auto &[day, list] : days) kept[to_string(day)] = list.size();
        return kept;
    }
};
