# sqrt n
n = int(input())
s, d = 0, 1
while d * d <= n:
    s += n % d == 0
    d += 1
print(s)
