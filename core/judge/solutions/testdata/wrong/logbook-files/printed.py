# The answer is printed.
words = sum(len(l.split()) for l in list(open("logbook.txt"))[1:])
print(words, "words")
