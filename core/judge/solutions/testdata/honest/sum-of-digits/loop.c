// By remainders.
int digit_sum(long long n)
{
    int s = 0;
    for (; n; n /= 10) s += n % 10 < 0 ? -(n % 10) : n % 10;
    return s;
}
