// Long doubles inside.
#include <cmath>
#include <vector>
double meanTemp(const std::vector<double> &temps, double missing) {
    long double sum = 0;
    int n = 0;
    for (double t : temps) if (!std::isnan(t)) sum += t, n++;
    return n ? (double)(sum / n) : missing;
}
