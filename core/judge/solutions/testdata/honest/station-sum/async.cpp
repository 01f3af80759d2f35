// Futures.
#include <future>
#include <iostream>
#include <numeric>
#include <vector>
int main() {
    int n;
    std::cin >> n;
    std::vector<long long> a(n);
    for (auto &x : a) std::cin >> x;
    auto half = a.begin() + n / 2;
    auto first = std::async(std::launch::async, [&] { return std::accumulate(a.begin(), half, 0LL); });
    std::cout << first.get() + std::accumulate(half, a.end(), 0LL) << '\n';
}
