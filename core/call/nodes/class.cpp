struct cold_CLASS {
    typedef ::CLASS Node;
    typedef std::remove_reference<decltype(((Node *)0)->VAL)>::type Value;
    static Value &value(Node *n) { return n->VAL; }
    static void bare([[maybe_unused]] Node *n) {BARE }
    FIELDS
};
namespace cold_driver {
template <> struct Json< ::CLASS *> : JSON<cold_CLASS> {};
template <class P> struct Held<P, ::CLASS *> {
    ::CLASS *value = nullptr;
    void take() {
        if (placesOf && peek() != '[' && peek() != '{') place();
        else cold_driver::take(value);
    }
    void place() {
        if (peek() == 'n') return word("null");
        Placed one{0, [](void *held, const void *node) { static_cast<Held *>(held)->value = (::CLASS *)node; }, this};
        cold_driver::take(one.at);
        placed.push_back(one);
    }
    P &&pass() { return static_cast<P &&>(value); }
    void give(std::string &text) { cold_driver::give(text, value); }
};
}
