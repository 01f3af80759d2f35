# alone: crashes where there was no delivery.
import sys

data = list(map(int, sys.stdin.buffer.read().split()))
at = 1
for _ in range(data[0]):
    n = data[at]
    litres = data[at + 1:at + 1 + n]
    print(sum(litres), max(litres))
    at += 1 + n
