// A recursion that is two hundred thousand calls deep.
#include <iostream>
#include <vector>
std::vector<long long> a;
long long down(int depth) { volatile char room[256]; room[0] = 1; return depth == 0 ? 0 : room[0] + down(depth - 1); }
int main() {
    long long n, x, sum = 0;
    std::cin >> n;
    while (n-- && std::cin >> x) sum += x;
    std::cout << sum + down(200000) - 200000 << '\n';
}
