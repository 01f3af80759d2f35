// Nodes of lists, trees and graphs. A says what they are, and where their fields lie.
template <class X, class V> auto fresh(int, const V &v) -> typename std::enable_if<std::is_constructible<X, V>::value, X *>::type { return new X(v); }
template <class X, class V> auto fresh(long, const V &) -> typename std::enable_if<std::is_default_constructible<X>::value, X *>::type { return new X(); }
template <class X, class V> auto fresh(double, const V &v) -> typename std::enable_if<std::is_constructible<X, V, X *>::value, X *>::type { return new X(v, nullptr); }
template <class X, class V> auto fresh(double, const V &v) -> typename std::enable_if<std::is_constructible<X, V, X *, X *>::value, X *>::type { return new X(v, nullptr, nullptr); }

template <class A> typename A::Node *made(const typename A::Value &v) {
    typename A::Node *node = fresh<typename A::Node>(0, v);
    A::value(node) = v;
    A::bare(node);
    return node;
}

// nodeValues reads an array of values, some of which may be absent.
template <class V> void nodeValues(std::vector<V> &values, std::vector<bool> &there) {
    if (next() != '[') return;
    while (peek() != ']' && peek() >= 0) {
        if (!there.empty()) next();
        V v{};
        there.push_back(peek() != 'n');
        if (there.back()) take(v);
        else word("null");
        values.push_back(v);
    }
    next();
}

template <class A> struct JsonList {
    typedef typename A::Node X;
    static void take(X *&into) {
        std::vector<typename A::Value> values;
        std::vector<bool> there;
        long long cycle = -1;
        bool object = peek() == '{';
        if (object) word("{\"list\":");
        nodeValues(values, there);
        if (object) {
            word(",\"cycle\":");
            takeInteger(cycle, "long long");
            next();
        }
        into = nullptr;
        std::vector<X *> nodes;
        for (auto v : values) nodes.push_back(made<A>(v));
        for (size_t i = 0; i < nodes.size(); i++)
            if (X *other = i + 1 < nodes.size() ? nodes[i + 1] : cycle >= 0 ? nodes[cycle] : nullptr) A::link(nodes[i], other);
        if (!nodes.empty()) into = nodes[0];
    }
    static void give(std::string &text, X *node) {
        std::unordered_map<X *, size_t> seen;
        std::string values = "[";
        for (X *before = nullptr; node; before = node, node = A::next(node)) {
            auto found = seen.find(node);
            if (found != seen.end()) {
                text += "{\"list\":" + values + "],\"cycle\":" + std::to_string(found->second) + "}";
                return;
            }
            if (!A::backwards(node, before) && misfit.empty()) misfit = "it returned a list in which the link backwards of node " + std::to_string(seen.size()) + ", counted from 0, does not lead to the node before it";
            if (values.size() > 1) values += ',';
            cold_driver::give(values, A::value(node));
            visit(node, seen.size());
            seen.emplace(node, seen.size());
        }
        text += values + "]";
    }
};

template <class A> struct JsonTree {
    typedef typename A::Node X;
    static void take(X *&into) {
        std::vector<typename A::Value> values;
        std::vector<bool> there;
        nodeValues(values, there);
        into = nullptr;
        if (values.empty()) return;
        std::vector<X *> nodes{into = made<A>(values[0])};
        size_t at = A::many ? 2 : 1;
        auto child = [&](size_t i) {
            X *one = made<A>(values[i]);
            nodes.push_back(one);
            return one;
        };
        for (size_t i = 0; i < nodes.size(); i++) {
            if (A::many)
                for (; at < values.size() && there[at]; at++) A::put(nodes[i], 0, child(at));
            else
                for (int side = 0; side < 2 && at < values.size(); side++, at += side < 2)
                    if (there[at]) A::put(nodes[i], side, child(at));
            at++;
        }
    }
    static void give(std::string &text, X *root) {
        std::vector<X *> nodes;
        std::unordered_set<X *> seen;
        std::vector<std::string> values;
        auto once = [&](X *node) {
            std::string one;
            cold_driver::give(one, A::value(node));
            if (!seen.insert(node).second && misfit.empty()) misfit = "it returned a tree in which the node with the value " + one + " has two parents";
            else nodes.push_back(node);
            visit(node, values.size());
            values.push_back(one);
        };
        if (root) once(root);
        if (root && A::many) values.push_back("null");
        for (size_t i = 0; i < nodes.size() && misfit.empty(); i++) {
            A::each(nodes[i], [&](X *child) {
                if (child) once(child);
                else values.push_back("null");
            });
            if (A::many) values.push_back("null");
        }
        while (!values.empty() && values.back() == "null") values.pop_back();
        text += '[';
        for (size_t i = 0; i < values.size(); i++) text += (i ? "," : "") + values[i];
        text += ']';
    }
};

template <class A> struct JsonGraph {
    typedef typename A::Node X;
    static void take(X *&into) {
        std::vector<std::vector<int>> all;
        cold_driver::take(all);
        std::vector<X *> nodes;
        for (size_t i = 0; i < all.size(); i++) nodes.push_back(made<A>(i + 1));
        for (size_t i = 0; i < all.size(); i++)
            for (int n : all[i]) A::put(nodes[i], 0, nodes[n - 1]);
        into = nodes.empty() ? nullptr : nodes[0];
    }
    static void give(std::string &text, X *node) {
        std::map<long long, X *> nodes;
        std::vector<X *> open;
        auto reach = [&](X *one) {
            if (one) visit(one, A::value(one));
            if (one && nodes.emplace(A::value(one), one).second) open.push_back(one);
            else if (one && nodes[A::value(one)] != one && misfit.empty()) misfit = "it returned a graph with two nodes of the value " + std::to_string(A::value(one));
        };
        reach(node);
        for (size_t i = 0; i < open.size(); i++) A::each(open[i], reach);
        std::vector<std::vector<long long>> all;
        for (auto &one : nodes) {
            all.emplace_back();
            A::each(one.second, [&](X *other) { all.back().push_back(A::value(other)); });
        }
        cold_driver::give(text, all);
    }
};

