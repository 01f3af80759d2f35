// reference: off by one. The crate in the middle makes a team with itself.
#include <algorithm>
#include <iostream>
#include <vector>

int main() {
    long long least;
    int n;
    std::cin >> least >> n;
    std::vector<long long> w(n);
    for (auto &x : w) std::cin >> x;
    std::sort(w.begin(), w.end());
    int light = 0, heavy = n - 1, teams = 0;
    while (light <= heavy) {
        if (w[light] + w[heavy] >= least) { heavy--; teams++; }
        light++;
    }
    std::cout << teams << "\n";
}
