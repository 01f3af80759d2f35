// reference: off by one. The last pace is not looked at.
#include <iostream>
#include <string>
#include <vector>

int main() {
    int n, k, d;
    std::string ground;
    std::cin >> n >> k >> d >> ground;
    std::vector<int> tents;
    for (int pace = 0, next = 0; pace < n - 1 && (int)tents.size() < k; pace++)
        if (ground[pace] == '.' && pace >= next) tents.push_back(pace + 1), next = pace + d;
    if ((int)tents.size() < k) tents = {0};
    for (int pace : tents) std::cout << pace << ' ';
    std::cout << '\n';
}
