def rows(grid):
    return grid[::-1]


def greet(words, sign):
    return [w + sign for w in words]


def measure(n: int, x: float, cap: Optional[int]):
    if cap is None:
        return None if str(x) == "-0.0" else n
    return min(n, cap)


class Station:
    def extremes(self, temps, warm):
        return {"mean": sum(temps) / len(temps), "least": min(temps), "most": max(temps) if warm else 0}


def echo(n):
    return n
