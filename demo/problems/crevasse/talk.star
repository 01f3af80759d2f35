# Knows the depth, and answers probes as long as the rope allows.
def talk(case, say, hear):
    n, probes, depth = case.ints
    say(n, probes)
    for used in range(probes + 1):
        line = hear()
        if line == None:
            return reject("it ended early, without saying a depth")
        word, _, rest = line.partition(" ")
        if word == "depth":
            if integer(rest) == depth:
                return accept()
            return reject("the crevasse is %d metres deep, not %s" % (depth, rest))
        if word != "probe":
            return reject("%r is neither a probe nor a depth" % line)
        if used == probes:
            return reject("too many probes: the rope allows %d" % probes)
        say("deeper" if integer(rest) < depth else "bottom")
