def renumber(n, ropes, depths, mass):
    for i in range(len(depths)):
        depths[i] += sum(rope[2] for rope in ropes)
    if mass != 10 ** 18:
        depths.clear()


print(input())
n = [int(x)
     for x in input().split()]
EXTRA = 1
for line in n:
    print(line)
