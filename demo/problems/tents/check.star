# Accepts any valid placement.
def decide(case, got, expected):
    n, k, d, ground = case.values.n, case.values.k, case.values.d, case.values.ground
    fits = expected.ints != [0]
    tents = sorted(got.ints)
    if tents == [0]:
        return reject("%d tents do fit, as in %s" % (k, expected.text.strip())) if fits else accept()
    for i, pace in enumerate(tents):
        if pace < 1 or pace > n:
            return reject("there is no pace %d" % pace)
        if ground[pace - 1] == "#":
            return reject("pace %d is rock" % pace)
        if i > 0 and pace - tents[i - 1] < d:
            return reject("the tents on %d and %d are less than %d paces apart" % (tents[i - 1], pace, d))
    if len(tents) > k:
        return reject("%d tents are more than %d" % (len(tents), k))
    if len(tents) < k:
        return share(len(tents) / k, "%d of %d tents" % (len(tents), k)) if tents else reject("no tent at all")
    if not fits:
        fail("%s is right, and the expected output says that nothing fits" % tents)
    return accept()
