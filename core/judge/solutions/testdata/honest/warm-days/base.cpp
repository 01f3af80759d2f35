// A base class has the method, and is abstract.
#include <vector>
struct Base { virtual bool warm(int, long long) = 0; int warmDays(std::vector<int> t, long long l) { int n = 0; for (int x : t) n += warm(x, l); return n; } };
struct Solution : Base { bool warm(int x, long long l) override { return x > l; } };
