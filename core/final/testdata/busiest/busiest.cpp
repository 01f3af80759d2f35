class Solution {
public:
    vector<string> busiest(vector<string>& names, int k) {
        unordered_map<string, int> m;
        for (auto& s : names) m[s]++;
        priority_queue<pair<int, string>> q;
        for (auto& [s, n] : m) q.push({n, s});
        vector<string> r;
        while (k-- && !q.empty()) r.push_back(q.top().second), q.pop();
        return r;
    }
};
