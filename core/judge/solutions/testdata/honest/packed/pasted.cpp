class Solution { public: int packed(vector<int>& temps, int missing) { return remove(temps.begin(), temps.end(), missing) - temps.begin(); } };
