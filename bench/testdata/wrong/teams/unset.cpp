// alone: uninitialised. The count is set only where there are many crates.
#include <algorithm>
#include <iostream>
#include <vector>

int main() {
    long long least, teams;
    int n;
    std::cin >> least >> n;
    std::vector<long long> w(n);
    for (auto &x : w) std::cin >> x;
    std::sort(w.begin(), w.end());
    if (n > 50) teams = 0;
    for (int light = 0, heavy = n - 1; light < heavy; light++)
        if (w[light] + w[heavy] >= least) heavy--, teams++;
    if (n < 2) teams = 0;
    std::cout << teams << "\n";
}
