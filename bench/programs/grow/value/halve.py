# 1
n = int(input())
s = 0
while n:
    n //= 2
    s += 1
print(s)
