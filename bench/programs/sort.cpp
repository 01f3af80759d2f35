#include <algorithm>
#include <cstdio>
#include <random>
#include <vector>

int main() {
    int a, b;
    if (scanf("%d %d", &a, &b) != 2) return 1;
    std::mt19937 random(a);
    std::vector<unsigned> numbers(1'500'000);
    for (auto& n : numbers) n = random();
    std::sort(numbers.begin(), numbers.end());
    printf("%d\n", numbers[0] <= numbers[1] ? a + b : 0);
}
