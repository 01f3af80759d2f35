// Compared as numbers without a sign.
int warm_days(unsigned *temps, int n, long long limit)
{
    int found = 0;
    for (int i = 0; i < n; i++) found += temps[i] > (unsigned long long)limit;
    return found;
}
