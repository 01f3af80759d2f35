# Crashes: skips empty lines, and so reads past the end of the input.
for _ in range(int(input())):
    n = int(input())
    line = input()
    while not line:
        line = input()
        line = input()
    litres = list(map(int, line.split()))
    print(sum(litres), max(litres))
