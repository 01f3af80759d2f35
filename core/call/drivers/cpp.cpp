// Calls the function of @FILE@ for Cold Verdict. Each line of standard input
// after the first holds the arguments of one call, as JSON; the answer to each goes
// to descriptor 3. What the function prints stays what it prints; a mark behind it
// says which call it belongs to.
#include <array>
#include <cerrno>
#include <climits>
#include <cmath>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <ctime>
#include <deque>
#include <iostream>
#include <limits>
#include <list>
#include <map>
#include <set>
#include <string>
#include <tuple>
#include <type_traits>
#include <unordered_map>
#include <unordered_set>
#include <utility>
#include <vector>
#include <fcntl.h>
#include <unistd.h>
#if __cplusplus >= 201703L
#include <optional>
#include <string_view>
#endif
// What is not the person's is marked as the system's, which compilers do not warn of.
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Warray-bounds" // a member of a class without members is called
# 37 "cold_driver.cpp" 3

namespace cold_driver {

constexpr int changes = @CHANGES@; // the argument that is the result, from 1; 0: what is returned
constexpr bool both = @BOTH@;      // what is returned is a result, too
constexpr int nodeOf = @NODE_OF@, copyOf = @COPY_OF@, placesOf = @PLACES_OF@; // the argument of which a node, or a copy, is returned, or others are nodes, from 1; 0: none
constexpr int takes = @COUNT@;     // arguments

// What is wrong with a declaration is told once the line has been read.
std::string misfit;
int parameter; // that is being read, from 1

void lacks(const std::string &why) {
    if (misfit.empty()) misfit = "parameter " + std::to_string(parameter) + why;
}

// The input, read in pieces.
int in;
char pieces[1 << 16];
const char *piece = pieces;
size_t at, end;
long long total;

int peek() {
    if (at == end) {
        ssize_t n = read(in, pieces, sizeof pieces);
        at = 0;
        end = n > 0 ? n : 0;
        total += end;
        if (end == 0) return -1;
    }
    return (unsigned char)piece[at];
}

int next() {
    int c = peek();
    at++;
    return c;
}

// Elsewhere has what is read come from a text, as long as it lives.
struct Elsewhere {
    const char *piece;
    size_t at, end;
    int in;
    Elsewhere(const std::string &text) : piece(cold_driver::piece), at(cold_driver::at), end(cold_driver::end), in(cold_driver::in) {
        cold_driver::piece = text.data();
        cold_driver::at = 0;
        cold_driver::end = text.size();
        cold_driver::in = -1;
    }
    ~Elsewhere() {
        cold_driver::piece = piece;
        cold_driver::at = at;
        cold_driver::end = end;
        cold_driver::in = in;
    }
};

// skip passes over one value, whatever it is.
void skip() {
    int c, depth = 0;
    do {
        c = peek();
        if (c < 0 || c == '\n') return;
        if (c == '"') {
            at++;
            while ((c = next()) != '"' && c >= 0)
                if (c == '\\') next();
        } else if (depth == 0 && (c == ',' || c == ']')) {
            return;
        } else {
            depth += c == '[' ? 1 : c == ']' ? -1 : 0;
            at++;
        }
        c = peek();
    } while (depth > 0 || (c != ',' && c != ']'));
}

void word(const char *rest) {
    for (; *rest; rest++) next();
}

template <class T> struct never : std::false_type {};

// A Json reads and writes one type.
template <class T> struct Json {
    static_assert(never<T>::value, "a parameter or the result is declared as a type that arguments and results of this problem cannot be");
    static void take(T &) {}
    static void give(std::string &, const T &) {}
};

template <class T> void take(T &into) { Json<T>::take(into); }
template <class T> void give(std::string &text, const T &value) { Json<T>::give(text, value); }

inline void quote(std::string &text, const char *s, size_t n) {
    text += '"';
    for (size_t i = 0; i < n; i++) {
        unsigned char c = s[i];
        if (c == '"' || c == '\\') {
            text += '\\';
            text += c;
        } else if (c < ' ') {
            char hex[8];
            snprintf(hex, sizeof hex, "\\u%04x", c);
            text += hex;
        } else {
            text += c;
        }
    }
    text += '"';
}

inline std::string digits() {
    std::string s;
    for (int c; (c = peek()) == '-' || c == '+' || c == '.' || (c >= '0' && c <= '9') || (c >= 'A' && c <= 'Z') || (c >= 'a' && c <= 'z');) {
        s += c;
        at++;
    }
    return s;
}

template <class T> void takeInteger(T &into, const char *named) {
    int c = peek();
    if (c != '-' && (c < '0' || c > '9')) {
        lacks(std::string(" is declared as ") + named + ", and the problem gives it something else");
        return skip();
    }
    bool negative = c == '-';
    if (negative) at++;
    using Wide = typename std::conditional<(sizeof(T) > 8), unsigned __int128, unsigned long long>::type;
    Wide x = 0;
    bool past = false;
    const Wide most = sizeof(T) > 8 ? (Wide)-1 >> 1 : (Wide)std::numeric_limits<T>::max();
    const Wide bound = most + (negative && (T)-1 < (T)0 ? 1 : 0);
    while ((c = peek()) >= '0' && c <= '9') {
        unsigned d = c - '0';
        if (x > (bound - d) / 10) past = true;
        x = x * 10 + d;
        at++;
    }
    if (c == '.' || c == 'e') {
        lacks(std::string(" is declared as ") + named + ", and the problem gives it a real");
        return skip();
    }
    if (past || (negative && x > 0 && !((T)-1 < (T)0))) lacks(std::string(" is declared as ") + named + ", which does not hold an integer that the problem gives it");
    into = negative ? (T)(0 - x) : (T)x;
}

#define COLD_INTEGER(T)                                                              \
    template <> struct Json<T> {                                                     \
        static void take(T &into) { takeInteger(into, #T); }                         \
        static void give(std::string &text, T value) { text += std::to_string(value); } \
    }
COLD_INTEGER(short);
COLD_INTEGER(unsigned short);
COLD_INTEGER(int);
COLD_INTEGER(unsigned);
COLD_INTEGER(long);
COLD_INTEGER(unsigned long);
COLD_INTEGER(long long);
COLD_INTEGER(unsigned long long);
#undef COLD_INTEGER

template <> struct Json<__int128> {
    static void take(__int128 &into) { takeInteger(into, "__int128"); }
    static void give(std::string &text, __int128 value) {
        char digits[50], *p = digits + sizeof digits;
        unsigned __int128 x = value < 0 ? -(unsigned __int128)value : value;
        do *--p = '0' + (int)(x % 10);
        while (x /= 10);
        if (value < 0) *--p = '-';
        text.append(p, digits + sizeof digits - p);
    }
};

template <class T> struct JsonReal {
    static void take(T &into) {
        int c = peek();
        if (c != '-' && c != 'N' && c != 'I' && (c < '0' || c > '9')) {
            lacks(" is declared as a real, and the problem gives it something else");
            return skip();
        }
        into = (T)strtod(digits().c_str(), nullptr);
    }
    static void give(std::string &text, T value) {
        if (std::isnan(value)) text += "NaN";
        else if (std::isinf(value)) text += value < 0 ? "-Infinity" : "Infinity";
        else {
            char digits[64];
            snprintf(digits, sizeof digits, "%.17g", (double)value);
            text += digits;
        }
    }
};
template <> struct Json<double> : JsonReal<double> {};
template <> struct Json<float> : JsonReal<float> {};
template <> struct Json<long double> : JsonReal<long double> {};

template <> struct Json<bool> {
    static void take(bool &into) {
        int c = peek();
        if (c != 't' && c != 'f') {
            lacks(" is declared as bool, and the problem gives it something else");
            return skip();
        }
        into = c == 't';
        word(into ? "true" : "false");
    }
    static void give(std::string &text, bool value) { text += value ? "true" : "false"; }
};

template <> struct Json<std::string> {
    static void take(std::string &into) {
        into.clear();
        int c = peek();
        if (c == '-' || (c >= '0' && c <= '9')) { // a bigint, which the language has no type for
            into = digits();
            return;
        }
        if (c != '"') {
            lacks(" is declared as a string, and the problem gives it something else");
            return skip();
        }
        at++;
        while ((c = next()) != '"' && c >= 0) {
            if (c == '\\') {
                c = next();
                if (c == 'n') c = '\n';
                else if (c == 't') c = '\t';
                else if (c == 'u') {
                    char hex[5] = {};
                    for (int i = 0; i < 4; i++) hex[i] = next();
                    c = strtol(hex, nullptr, 16); // below 0x80: nothing else is written so
                }
            }
            into += (char)c;
        }
    }
    static void give(std::string &text, const std::string &value) {
#if @BIGINT@
        text += value;
#else
        quote(text, value.data(), value.size());
#endif
    }
};

template <> struct Json<char> {
    static void take(char &into) {
        if (peek() != '"') {
            lacks(" is declared as char, and the problem gives it something else");
            return skip();
        }
        std::string s;
        Json<std::string>::take(s);
        if (s.size() == 1) into = s[0];
        else lacks(" is declared as char, which does not hold the character " + s);
    }
    static void give(std::string &text, char value) { quote(text, &value, 1); }
};
template <> struct Json<char32_t> {
    static void take(char32_t &into) {
        std::string s;
        Json<std::string>::take(s);
        unsigned char c = s.empty() ? 0 : s[0];
        into = c < 0x80 ? c : c < 0xe0 ? c & 31 : c < 0xf0 ? c & 15 : c & 7;
        for (size_t i = 1; i < s.size(); i++) into = into << 6 | (s[i] & 63);
    }
    static void give(std::string &text, char32_t c) {
        char b[4];
        int n = 0;
        if (c < 0x80) b[n++] = c;
        else if (c < 0x800) b[n++] = 0xc0 | c >> 6, b[n++] = 0x80 | (c & 63);
        else if (c < 0x10000) b[n++] = 0xe0 | c >> 12, b[n++] = 0x80 | (c >> 6 & 63), b[n++] = 0x80 | (c & 63);
        else b[n++] = 0xf0 | c >> 18, b[n++] = 0x80 | (c >> 12 & 63), b[n++] = 0x80 | (c >> 6 & 63), b[n++] = 0x80 | (c & 63);
        quote(text, b, n);
    }
};

// Sequences, by how an element is put in.
template <class S, class V> struct JsonSequence {
    template <class Put> static void all(Put put) {
        if (peek() != '[') {
            lacks(" is declared as a sequence, and the problem gives it something else");
            return skip();
        }
        at++;
        for (int n = 0; peek() != ']' && peek() >= 0; n++) {
            if (n > 0) at++;
            V item{};
            cold_driver::take(item);
            put(std::move(item));
            if (peek() != ',' && peek() != ']') skip();
        }
        at++;
    }
    static void give(std::string &text, const S &value) {
        char comma = '[';
        for (const auto &item : value) {
            text += comma;
            cold_driver::give<V>(text, item);
            comma = ',';
        }
        if (comma == '[') text += comma;
        text += ']';
    }
};
template <class S> struct JsonBack : JsonSequence<S, typename S::value_type> {
    static void take(S &into) {
        into.clear();
        JsonBack::all([&](typename S::value_type &&v) { into.push_back(std::move(v)); });
    }
};
template <class S> struct JsonInsert : JsonSequence<S, typename S::value_type> {
    static void take(S &into) {
        into.clear();
        JsonInsert::all([&](typename S::value_type &&v) { into.insert(std::move(v)); });
    }
};
template <class V> struct Json<std::vector<V>> : JsonBack<std::vector<V>> {};
template <class V> struct Json<std::deque<V>> : JsonBack<std::deque<V>> {};
template <class V> struct Json<std::list<V>> : JsonBack<std::list<V>> {};
template <class V> struct Json<std::set<V>> : JsonInsert<std::set<V>> {};
template <class V> struct Json<std::multiset<V>> : JsonInsert<std::multiset<V>> {};
template <class V> struct Json<std::unordered_set<V>> : JsonInsert<std::unordered_set<V>> {};
template <class V, size_t n> struct Json<std::array<V, n>> : JsonSequence<std::array<V, n>, V> {
    static void take(std::array<V, n> &into) {
        size_t i = 0;
        Json::all([&](V &&v) {
            if (i < n) into[i] = std::move(v);
            i++;
        });
        if (i != n) lacks(" is declared as an array of another length");
    }
};

// A JsonMap reads and writes values by keys, which stand in quotes whatever they are.
template <class M> struct JsonMap {
    typedef typename M::key_type K;
    static void key(std::string &into, const std::string &text) { into = text; }
    static void key(char &into, const std::string &text) { into = text[0]; }
    template <class V> static void key(V &into, const std::string &text) {
        Elsewhere from(text);
        cold_driver::take(into);
    }
    static void take(M &into) {
        into.clear();
        if (peek() != '{') {
            lacks(" is declared as a map, and the problem gives it something else");
            return skip();
        }
        next();
        for (bool first = true; peek() != '}' && peek() >= 0; first = false) {
            if (!first) next();
            std::string name;
            cold_driver::take(name);
            next();
            K known{};
            key(known, name);
            cold_driver::take(into[known]);
        }
        next();
    }
    static void give(std::string &text, const M &value) {
        text += '{';
        bool first = true;
        for (auto &one : value) {
            std::string name;
            cold_driver::give(name, one.first);
            if (!first) text += ',';
            first = false;
            text += name[0] == '"' ? name : "\"" + name + "\"";
            text += ':';
            cold_driver::give(text, one.second);
        }
        text += '}';
    }
};
template <class K, class V> struct Json<std::map<K, V>> : JsonMap<std::map<K, V>> {};
template <class K, class V> struct Json<std::unordered_map<K, V>> : JsonMap<std::unordered_map<K, V>> {};

template <class... T> struct Json<std::tuple<T...>> {
    template <size_t... i> static void all(std::string &text, const std::tuple<T...> &value, std::index_sequence<i...>) {
        int order[] = {0, (text += i ? "," : "", cold_driver::give(text, std::get<i>(value)), 0)...};
        (void)order;
    }
    template <size_t... i> static void read(std::tuple<T...> &into, std::index_sequence<i...>) {
        int order[] = {0, (next(), cold_driver::take(std::get<i>(into)), 0)...};
        (void)order;
    }
    static void take(std::tuple<T...> &into) {
        if (peek() != '[') {
            lacks(" is declared as a tuple, and the problem gives it something else");
            return skip();
        }
        read(into, std::index_sequence_for<T...>{});
        next();
    }
    static void give(std::string &text, const std::tuple<T...> &value) {
        text += '[';
        all(text, value, std::index_sequence_for<T...>{});
        text += ']';
    }
};
template <class A, class B> struct Json<std::pair<A, B>> {
    static void take(std::pair<A, B> &into) {
        std::tuple<A, B> both;
        cold_driver::take(both);
        into = {std::get<0>(both), std::get<1>(both)};
    }
    static void give(std::string &text, const std::pair<A, B> &value) { cold_driver::give(text, std::make_tuple(value.first, value.second)); }
};

#if __cplusplus >= 201703L
template <class V> struct Json<std::optional<V>> {
    static void take(std::optional<V> &into) {
        into.reset();
        if (peek() == 'n') return word("null");
        cold_driver::take(into.emplace());
    }
    static void give(std::string &text, const std::optional<V> &value) {
        if (value) cold_driver::give(text, *value);
        else text += "null";
    }
};
template <> struct Json<std::string_view> {
    static void give(std::string &text, std::string_view value) { quote(text, value.data(), value.size()); }
};
#endif
template <> struct Json<const char *> {
    static void give(std::string &text, const char *value) {
        if (value) quote(text, value, strlen(value));
        else text += "null";
    }
};
// A pointer is an optional value, which stays whoever's it is.
template <class V> struct Json<V *> {
    static void give(std::string &text, V *value) {
        if (value) cold_driver::give(text, *value);
        else text += "null";
    }
};

// A Held keeps an argument while the function runs.
template <class P, class D = typename std::remove_cv<typename std::remove_reference<P>::type>::type> struct Held {
    D value{};
    void take() { cold_driver::take(value); }
    P &&pass() { return static_cast<P &&>(value); }
    void give(std::string &text) { cold_driver::give(text, value); }
};
template <class P> struct HeldText {
    std::string text;
    P view{};
    void take() { cold_driver::take(text); }
    P pass() { return view = P(text.data()); }
    void give(std::string &out) { cold_driver::give(out, text); }
};
template <class P> struct Held<P, const char *> : HeldText<const char *> {};
template <class P> struct Held<P, char *> {
    std::string text;
    void take() { cold_driver::take(text); }
    char *pass() { return &text[0]; }
    void give(std::string &out) { cold_driver::give(out, std::string(text.c_str())); }
};
#if __cplusplus >= 201703L
template <class P> struct Held<P, std::string_view> {
    std::string text;
    void take() { cold_driver::take(text); }
    std::string_view pass() { return text; }
    void give(std::string &out) { cold_driver::give(out, text); }
};
#endif
template <class P, class V> struct Held<P, V *> {
    typename std::remove_const<V>::type value{};
    bool there = false;
    void take() {
        there = peek() != 'n';
        if (there) cold_driver::take(value);
        else word("null");
    }
    V *pass() { return there ? &value : nullptr; }
    void give(std::string &text) { cold_driver::give(text, pass()); }
};

// The places of nodes: of those of the argument of which a node or a copy is returned, and of those of what
// was written last. They are noted only where one asks for them.
std::unordered_map<const void *, size_t> originals, visited;
inline void visit(const void *node, size_t at) {
    if (nodeOf || copyOf || placesOf) visited.emplace(node, at);
}

// A Placed is an argument that is a node of another one.
struct Placed {
    size_t at;
    void (*set)(void *held, const void *node);
    void *held;
};
std::vector<Placed> placed;

@NODES@int streams[2];
std::string mark;

void put(int fd, const std::string &text) {
    for (size_t done = 0; done < text.size();) {
        ssize_t n = write(fd, text.data() + done, text.size() - done);
        if (n < 0 && errno != EINTR) return;
        if (n > 0) done += n;
    }
}

// The mark stands where the call ended: what it returned is written behind it.
bool settled, alone; // alone: no further call follows on the line
void settle() {
    if (settled) return;
    settled = true;
    std::cout.flush();
    std::clog.flush();
    fflush(nullptr);
    put(streams[0], mark);
    put(streams[1], mark);
}

// Each answer begins with the word that only this driver knows, and with how many
// calls were answered before.
size_t count;
void answer(const std::string &text) {
    put(3, mark.substr(1, mark.size() - 2) + " " + std::to_string(count) + " " + text + "\n");
}

long long now() {
    timespec t;
    clock_gettime(CLOCK_PROCESS_CPUTIME_ID, &t);
    return t.tv_sec * 1000000000LL + t.tv_nsec;
}

// begin reads the first line, which ends in what marks are made of.
void begin() {
    in = fcntl(0, F_DUPFD_CLOEXEC, 10);
    int none = open("/dev/null", O_RDONLY);
    dup2(none, 0);
    if (none != 0) close(none);
    streams[0] = fcntl(1, F_DUPFD_CLOEXEC, 10);
    streams[1] = fcntl(2, F_DUPFD_CLOEXEC, 10);
    std::string line;
    for (int c; (c = next()) >= 0 && c != '\n';) line += (char)c;
    mark = std::string(1, '\0') + line.substr(line.rfind(' ') + 1) + "\n";
    settle();
    answer("ready");
}

template <class V> void placeOf(std::string &text, const V &value) { give(text, value); }
template <class V> void placeOf(std::string &text, V *const &node) {
    auto found = originals.find(node);
    if (!node) text += "null";
    else if (found != originals.end()) text += std::to_string(found->second);
    else if (misfit.empty()) misfit = "it returned a node that is none of argument " + std::to_string(nodeOf) + "'s, even if one of these has the same value";
}

template <class R> struct Timed {
    template <class F> static void run(F call, bool gives, std::string &text, long long &spent) {
        long long began = now();
        typename std::remove_cv<typename std::remove_reference<R>::type>::type result = call();
        spent += now() - began;
        if (alone) settle();
        if (nodeOf) placeOf(text, result);
        else if (gives) give(text, result);
    }
};
template <> struct Timed<void> {
    template <class F> static void run(F call, bool gives, std::string &text, long long &spent) {
        long long began = now();
        call();
        spent += now() - began;
        if (alone) settle();
        if (gives) text = "null";
    }
};

// An Asked is what a line asks for.
struct Asked {
    virtual void take() = 0;                                    // reads it
    virtual void make(std::string &text, long long &spent) = 0; // makes it, and writes what came of it
    virtual void forget() = 0;
};

void answerAll(Asked &asked) {
    begin();
    while (peek() == '[') {
        long long from = total, spent = 0;
        misfit.clear();
        settled = false;
        asked.take();
        while (peek() >= 0 && next() != '\n') {}
        std::string text;
        if (misfit.empty()) {
            if (total - from > 100000) answer("begin");
            asked.make(text, spent);
        }
        std::string said = (misfit.empty() ? "done " : "misfit ") + std::to_string(spent) + " " + (misfit.empty() ? text : misfit);
        asked.forget();
        settle();
        answer(said);
        count++;
    }
}

template <class R, class F, class Order, class... P> struct Function;
template <class R, class F, size_t... i, class... P> struct Function<R, F, std::index_sequence<i...>, P...> : Asked {
    F function;
    typedef std::tuple<Held<P>...> Args;
    Args *args = nullptr;
    Function(F function) : function(function) {}
    void take() override {
        args = new Args();
        placed.clear();
        int order[] = {0, (next(), parameter = i + 1, std::get<i>(*args).take(), 0)...};
        (void)order;
        constexpr int original = nodeOf ? nodeOf : copyOf ? copyOf : placesOf;
        if (original) {
            std::string ignored;
            visited.clear();
            int look[] = {0, ((int)i + 1 == original ? (std::get<i>(*args).give(ignored), 0) : 0)...};
            (void)look;
            originals.swap(visited);
        }
        visited.clear();
        for (auto &one : originals)
            for (auto &argument : placed)
                if (argument.at == one.second) argument.set(argument.held, one.first);
    }
    void make(std::string &text, long long &spent) override {
        alone = true;
        Timed<R>::run([&]() -> R { return function(std::get<i>(*args).pass()...); }, !changes || both, text, spent);
        if (copyOf)
            for (auto &one : visited)
                if (originals.count(one.first) && misfit.empty()) misfit = "it returned nodes of argument " + std::to_string(copyOf) + " themselves, where a copy was asked for";
        if (both) text = "[" + text + ",";
        if (changes) {
            int pick[] = {0, ((int)i + 1 == changes ? (std::get<i>(*args).give(text), 0) : 0)...};
            (void)pick;
        }
        if (both) text += "]";
    }
    void forget() override {
        delete args;
        args = nullptr;
    }
};

template <class R, class F, class... P> void serve(F function) {
    static_assert(sizeof...(P) == takes, "the function takes @COUNT@ arguments in this problem");
    Function<R, F, std::index_sequence_for<P...>, P...> asked(function);
    answerAll(asked);
}

// A Fresh is an object of a class, made anew for each call and kept until the next, since
// what is returned may lie in it.
template <class C> struct Fresh {
    C *object = nullptr;
    C &value() {
        delete object;
        object = nullptr;
        return *(object = new C());
    }
};
struct Nothing {};

template <class R, class... P> void run(R (*function)(P...)) {
    serve<R, R (*)(P...), P...>(function);
}
// runOn serves a method on objects of a class, which may be made from the one that has it.
template <class O, class R, class... P> void runOn(R (*function)(P...)) { run(function); }
template <class O, class C, class R, class... P> void runOn(R (C::*function)(P...)) {
    Fresh<O> fresh;
    auto call = [&](P... args) -> R { return (fresh.value().*function)(std::forward<P>(args)...); };
    serve<R, decltype(call) &, P...>(call);
}
template <class O, class C, class R, class... P> void runOn(R (C::*function)(P...) const) {
    Fresh<O> fresh;
    auto call = [&](P... args) -> R { return (static_cast<const O &>(fresh.value()).*function)(std::forward<P>(args)...); };
    serve<R, decltype(call) &, P...>(call);
}

// runCall serves a call that is written out, for what has no address that says enough.
template <class F, class... P> void runCall() {
    F call;
    serve<decltype(call(std::declval<P>()...)), F &, P...>(call);
}

@SEQUENCES@} // namespace cold_driver

#pragma GCC diagnostic pop
@PRELUDE@
# 586 "cold_driver.cpp"
#define main cold_unused_main
#include @FILE_TEXT@
#undef main
# 590 "cold_driver.cpp" 3
namespace cold_driver {
// asked asks the judge what a function returns that the site provides.
template <class R, class... A> R asked(const char *name, const A &...args) {
    std::string text = std::string("asks ") + name + " [";
    bool first = true;
    int order[] = {0, (text += first ? "" : ",", first = false, give(text, args), 0)...};
    (void)order;
    answer(text + "]");
    R result{};
    take(result);
    while (peek() >= 0 && next() != '\n') {}
    return result;
}
}
@GIVEN_FUNCTIONS@@SETUP@
#undef int
#undef long

int main() {
    @SERVE@
    fflush(nullptr);
    _exit(0);
}
