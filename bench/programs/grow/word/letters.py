# |name|
t = input()
count = {}
for c in t:
    count[c] = count.get(c, 0) + 1
print(max(count.values()))
