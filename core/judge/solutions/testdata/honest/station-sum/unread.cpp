// The rest of the input is never read.
#include <iostream>
int main() {
    std::ios::sync_with_stdio(false);
    std::cin.tie(nullptr);
    long long n, x, sum = 0;
    std::cin >> n;
    for (long long i = 0; i < n; i++) std::cin >> x, sum += x;
    std::cout << sum << '\n';
}
