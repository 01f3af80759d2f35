# Static, class and decorated methods; a future import.
from __future__ import annotations
import functools


def logged(f):
    @functools.wraps(f)
    def inner(*args, **named):
        print("called", f.__name__)
        return f(*args, **named)
    return inner


class Solution:
    warm = staticmethod(lambda t, limit: t > limit)

    @classmethod
    @logged
    def warm_days(cls, temps: list[int], limit: int) -> int:
        return len([t for t in temps if cls.warm(t, limit)])
