class Solution {
public:
    vector<vector<int>> watchRows(vector<int> &hours) {
        vector<vector<int>> rows;
        for (size_t i = 0; i < hours.size(); i++) {
            if (i % 2 == 0) rows.emplace_back();
            rows.back().push_back(hours[i]);
        }
        return rows;
    }
};
