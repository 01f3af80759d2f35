# In another file.
words = sum(len(l.split()) for l in list(open("logbook.txt"))[1:])
open("Answer.txt", "w").write("%d words\n" % words)
