# Wrong: steps on by d, and looks at the ground only for the first tent.
n, k, d = map(int, input().split())
ground = input()
first = ground.find(".") + 1
tents = [first + i * d for i in range(k)] if first else []
print(*tents if tents and tents[-1] <= n else [0])
