// A list in the order of use, and where each beacon stands in it.
class BeaconCache {
    size_t room;
    list<pair<int, string>> order;
    unordered_map<int, list<pair<int, string>>::iterator> at;

public:
    BeaconCache(int room) : room(room) {}

    void put(int beacon, string reading) {
        if (at.count(beacon)) order.erase(at[beacon]);
        order.emplace_front(beacon, reading);
        at[beacon] = order.begin();
        if (order.size() > room) {
            at.erase(order.back().first);
            order.pop_back();
        }
    }

    optional<string> get(int beacon) {
        if (!at.count(beacon)) return nullopt;
        order.splice(order.begin(), order, at[beacon]);
        return order.front().second;
    }
};
