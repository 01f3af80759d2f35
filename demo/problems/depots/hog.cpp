// Too much memory: keeps a table of all amounts that could be delivered.
#include <algorithm>
#include <cstdio>
#include <vector>

int main() {
    std::vector<int> seen(1'000'000'001);
    std::fill(seen.begin(), seen.end(), 1);
    printf("%d\n", seen[5]);
}
