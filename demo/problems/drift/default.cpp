// Wrong: cout prints six digits unless it is told otherwise.
#include <cmath>
#include <iostream>

int main() {
    int n;
    std::cin >> n;
    double way = 0, sum = 0, px = 0, py = 0;
    for (int i = 0; i < n; i++) {
        double x, y;
        std::cin >> x >> y;
        if (i > 0) way += std::hypot(x - px, y - py);
        sum += std::hypot(x, y);
        px = x, py = y;
    }
    std::cout << way << '\n' << sum / n << '\n';
}
