# A checker: accepts any valid placement.
import os
import sys


def read(name):
    with open(os.path.join(sys.argv[1], name), encoding="utf-8", errors="replace") as file:
        return file.read().split()


def decide():
    n, k, d = map(int, read("input")[:3])
    ground = read("input")[3]
    fits = read("expected") != ["0"]
    got = read("got")
    if not all(word.isascii() and word.isdigit() for word in got):
        return "reject not every word is a number"
    tents = sorted(map(int, got))
    if tents == [0]:
        return "accept" if not fits else f"reject {k} tents do fit"
    for i, pace in enumerate(tents):
        if pace < 1 or pace > n:
            return f"reject there is no pace {pace}"
        if ground[pace - 1] == "#":
            return f"reject pace {pace} is rock"
        if i > 0 and pace - tents[i - 1] < d:
            return f"reject the tents on {tents[i - 1]} and {pace} are less than {d} paces apart"
    if len(tents) > k or not tents:
        return f"reject {len(tents)} tents, not {k}"
    if len(tents) < k:
        return f"share {len(tents) / k} {len(tents)} of {k} tents"
    assert fits, "the expected output says that nothing fits"
    return "accept"


print(decide())
