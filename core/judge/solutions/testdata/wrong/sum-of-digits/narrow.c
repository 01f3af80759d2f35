// It has 32 bits.
int digit_sum(int n)
{
    int s = 0;
    for (; n > 0; n /= 10) s += n % 10;
    return s;
}
