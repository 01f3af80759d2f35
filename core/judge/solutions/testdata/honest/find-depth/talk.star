# Knows the depth, and answers probes.
def talk(case, say, hear):
    n, depth = case.ints
    say(n)
    for used in range(40):
        line = hear()
        if line == None:
            return reject("it ended early")
        word, _, rest = line.partition(" ")
        if word == "depth":
            return accept() if integer(rest) == depth else reject("it is %d" % depth)
        say("deeper" if integer(rest) < depth else "bottom")
    return reject("too many probes")
