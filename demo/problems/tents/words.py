# Wrong: answers in words, which nobody asked for.
n, k, d = map(int, input().split())
print("impossible" if input().count(".") < k else "they fit")
