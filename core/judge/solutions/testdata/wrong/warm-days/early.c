// The last day is left out.
int warm_days(int *temps, int n, long long limit)
{
    int found = 0;
    for (int i = 0; i + 1 < n; i++) found += temps[i] > limit;
    return found;
}
