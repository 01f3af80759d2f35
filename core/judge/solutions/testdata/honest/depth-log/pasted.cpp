// It returns its own list, which changes later.
class DepthLog {
    vector<int> list;

public:
    void add(int depth) { list.push_back(depth); }
    vector<int> &all() { return list; }
    void fill(const vector<int> &depths) { list.insert(list.end(), depths.begin(), depths.end()); }
    string summary() const {
        ostringstream out;
        for (int d : list) out << d << ' ';
        return out.str();
    }
    void restore(string text) {
        istringstream in(text);
        for (int d; in >> d;) list.push_back(d);
    }
};
