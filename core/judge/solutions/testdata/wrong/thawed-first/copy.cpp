// It changes a copy.
void thawedFirst(vector<int> temps) { stable_partition(temps.begin(), temps.end(), [](int t) { return t > 0; }); }
