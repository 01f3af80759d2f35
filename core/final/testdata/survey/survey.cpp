#include <bits/stdc++.h>
using namespace std;

class Solution {
public:
    tuple<vector<vector<int>>, string, double, bool, vector<bool>> surveyCamp(int limit, const vector<string>& names, vector<vector<int>> &table, list<bool> open, double weight, char sign, const string &note, long long total) {
        string longest = names.empty() ? note : *max_element(names.begin(), names.end(), [](const string &a, const string &b) { return a.size() < b.size(); });
        for (auto &row : table) for (int &x : row) x += limit;
        bool any = false;
        for (bool x : open) any = any || x;
        return {table, longest, (weight + total) / 2, any && sign == 'x', vector<bool>(open.rbegin(), open.rend())};
    }
};

int main() {
    vector<vector<int>> none;
    cout << get<2>(Solution().surveyCamp(1, {}, none, {}, 1, 'x', "", 1)) << "\n";
}
