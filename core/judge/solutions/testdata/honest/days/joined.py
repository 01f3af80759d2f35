# Joined at the end.
n = int(input())
print("\n".join(f"day {i}: {i * 7 % 40 - 20}" for i in range(1, n + 1)), end="")
