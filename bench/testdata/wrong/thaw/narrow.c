// alone: overflow. The sum is kept in 32 bits.
int longest_thaw(const int *temps, int days, long long limit)
{
    int best = 0, first = 0, total = 0;
    for (int day = 0; day < days; day++) {
        if (temps[day] <= 0) {
            first = day + 1;
            total = 0;
            continue;
        }
        total += temps[day];
        while (total > limit) total -= temps[first++];
        if (day - first + 1 > best) best = day - first + 1;
    }
    return best;
}
