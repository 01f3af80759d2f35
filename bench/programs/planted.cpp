// Answers a demo problem's input in the right way, or with a mistake: planted NAME
// with "right" or "wrong". Each name is a mistake that people make.
#include <algorithm>
#include <cstdint>
#include <cstdlib>
#include <iostream>
#include <numeric>
#include <string>
#include <vector>
using namespace std;
typedef long long ll;

static bool wrong;
static string bug;
static bool has(const char *name) { return wrong && bug == name; }

static vector<ll> numbers(ll n) {
    vector<ll> a(n);
    for (auto &x : a) cin >> x;
    return a;
}

static void teams() {
    ll least, n;
    cin >> least >> n;
    auto w = numbers(n);
    if (has("last-crate") && n > 1) w.pop_back();
    if (!has("unsorted")) sort(w.begin(), w.end());
    if (has("room-for-100") && w.size() > 100) w.resize(100);
    if (has("two-alike")) w.erase(unique(w.begin(), w.end()), w.end());
    ll i = 0, j = (ll)w.size() - 1, used = 0;
    while (i < j) {
        ll sum = w[i] + w[j];
        if (has("neighbours")) sum = w[j - 1] + w[j];
        if (has("wraps")) sum = (int32_t)(uint32_t)sum;
        bool enough = has("tie") ? sum > least : sum >= least;
        if (enough) --j, ++used;
        has("neighbours") ? --j : ++i;
    }
    cout << used << "\n";
}

static void depots() {
    ll t, kept = 0, before = -1;
    cin >> t;
    for (ll c = 1; c <= t; c++) {
        ll n;
        cin >> n;
        auto a = numbers(n);
        if (has("stale")) a.insert(a.end(), before > n ? before - n : 0, 1);
        ll sum = accumulate(a.begin(), a.end(), 0LL);
        if (has("sum-wraps")) sum = (int32_t)(uint32_t)sum;
        if (has("carried") && n == 0) sum = kept;
        if (has("no-line") && n == 0) continue;
        if (has("cases-past-100") && c > 100) continue;
        if (has("same-as-before") && n == before) sum++;
        cout << sum << "\n";
        kept = sum;
        before = n;
    }
}

static void relay() {
    ll n, m;
    cin >> n >> m;
    vector<ll> parent(n + 1), degree(n + 1);
    iota(parent.begin(), parent.end(), 0);
    auto find = [&](ll x) {
        while (parent[x] != x) x = parent[x] = parent[parent[x]];
        return x;
    };
    ll loops = 0;
    for (ll k = 0; k < m; k++) {
        ll a, b;
        cin >> a >> b;
        if (a == b) loops++;
        degree[a]++, degree[b]++;
        if (has("last-link") && k == m - 1) break;
        parent[find(a)] = find(b);
    }
    ll parts = 0;
    for (ll v = 1; v <= n - has("last-beacon"); v++) parts += find(v) == v;
    if (has("one-part")) parts = 1;
    if (has("loop") && loops) parts++;
    ll most = *max_element(degree.begin(), degree.end());
    if (has("fork") && most > 2) parts--;
    cout << parts << "\n";
}

static void drift() {
    ll n;
    cin >> n;
    vector<ll> x(n), y(n);
    for (ll i = 0; i < n; i++) cin >> x[i] >> y[i];
    ll way = 0, most = 0;
    for (ll i = 1; i < n; i++) {
        ll step = llabs(x[i] - x[i - 1]) + llabs(y[i] - y[i - 1]);
        if (has("rest") && step == 0) step = 1;
        if (has("back") && x[i] < x[i - 1] && y[i] < y[i - 1]) step = 0;
        if (has("far")) step = (int32_t)(uint32_t)step;
        way += step;
        if (has("seven") && i % 7 == 0) way++;
        most = max(most, step);
    }
    if (has("from-zero") && n > 0 && x[0] == 0) way++;
    cout << way << " " << most << "\n";
}

int main(int, char **argv) {
    ios::sync_with_stdio(false);
    cin.tie(nullptr);
    string problem = argv[1];
    bug = argv[2];
    wrong = string(argv[3]) == "wrong";
    if (problem == "teams") teams();
    if (problem == "depots") depots();
    if (problem == "relay") relay();
    if (problem == "drift") drift();
}
