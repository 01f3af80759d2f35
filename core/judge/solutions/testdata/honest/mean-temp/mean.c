// A loop.
#include <math.h>
double mean_temp(const double *temps, int n, double missing)
{
    double sum = 0;
    int known = 0;
    for (int i = 0; i < n; i++) if (!isnan(temps[i])) known++;
    for (int i = 0; i < n; i++) if (!isnan(temps[i])) sum += temps[i] / known;
    return known ? sum : missing;
}
