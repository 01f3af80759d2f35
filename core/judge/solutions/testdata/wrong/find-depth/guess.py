# It guesses.
n = int(input())
print("depth", n)
