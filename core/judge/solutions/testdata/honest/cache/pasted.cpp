class BeaconCache {
    int room;
    list<int> order;
    unordered_map<int, pair<string, list<int>::iterator>> kept;

public:
    BeaconCache(int room) : room(room) {}

    optional<string> get(int beacon) {
        auto at = kept.find(beacon);
        if (at == kept.end()) return nullopt;
        order.splice(order.end(), order, at->second.second);
        return at->second.first;
    }

    void put(int beacon, const string &reading) {
        auto at = kept.find(beacon);
        if (at != kept.end()) order.erase(at->second.second);
        order.push_back(beacon);
        kept[beacon] = {reading, prev(order.end())};
        if ((int)order.size() > room) {
            kept.erase(order.front());
            order.pop_front();
        }
    }

    int size() const { return order.size(); }
};
