// Declared in a class and defined outside of it, with a main of its own.
#include <iostream>
#include <vector>
class Solution {
public:
    int warmDays(std::vector<int> &temps, long long limit);
};
int main() { std::cout << "not run\n"; }
int Solution::warmDays(std::vector<int> &temps, long long limit) {
    int n = 0;
    for (auto &t : temps) n += t > limit;
    return n;
}
