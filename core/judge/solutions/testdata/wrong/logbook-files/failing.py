# Right, and then it fails.
open("answer.txt", "w").write("%d words\n" % sum(len(l.split()) for l in list(open("logbook.txt"))[1:]))
raise SystemExit(1)
