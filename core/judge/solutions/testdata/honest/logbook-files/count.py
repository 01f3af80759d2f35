# Opened, and noise printed.
words = sum(len(l.split()) for l in list(open("logbook.txt"))[1:])
print("debug")
with open("answer.txt", "w") as f:
    print(words, "words", file=f)
