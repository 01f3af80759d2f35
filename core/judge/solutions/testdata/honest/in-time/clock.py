# It looks at the clock.
import time


def in_time(work, limit):
    last = None

    def call(*args):
        nonlocal last
        if last is None or time.monotonic() - last >= limit / 1000 - 1e-9:
            last = time.monotonic()
            return work(*args)

    return call
