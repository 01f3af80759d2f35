# Who went out, and when each came back: what no shape can say.
NAMES = ["Aldis", "Birte", "Fenja", "Gunnar", "Ivar", "Ylva"]

def make(rng, size):
    walks = 1 + int(2000 * size * size)
    events = []
    busy = {name: 0 for name in NAMES}    # the minute from which each is inside again
    for _ in range(walks):
        name = rng.choice(NAMES)
        out = busy[name] + rng.int(1, rng.choice([3, 60, 700]))
        busy[name] = out + rng.int(1, rng.choice([3, 60, 700]))
        events += [(out, "out", name), (busy[name], "in", name)]
    lines = []
    for minute, way, name in sorted(events):
        day, left = minute // 1440 + 1, minute % 1440
        lines.append([padded(day, 3), padded(left // 60, 2) + ":" + padded(left % 60, 2), way, name])
    return lines

def padded(n, digits):
    return "0" * (digits - len(str(n))) + str(n)
