// Overloads differ in what they take.
int walk(int x) { return x; }
int walk(const vector<int> &steps) { int s = 0; for (int x : steps) s += walk(x); return s; }
int walk(string) { return 1; }
