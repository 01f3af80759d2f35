// Infinite where it is large.
#include <cmath>
#include <vector>
float meanTemp(std::vector<double> temps, double missing) {
    double sum = 0; int n = 0;
    for (double t : temps) if (!std::isnan(t)) sum += t, n++;
    return n ? sum / n : missing;
}
