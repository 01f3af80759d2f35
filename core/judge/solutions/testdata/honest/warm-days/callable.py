# An object that can be called; numbers of its own class.
import dataclasses


@dataclasses.dataclass
class Counter:
    more: int = 0

    def __call__(self, temps, limit):
        return self.more + sum(map(lambda t: t > limit, temps))


warmDays = Counter()
