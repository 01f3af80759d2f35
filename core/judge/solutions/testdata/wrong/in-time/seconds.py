# It takes milliseconds for seconds.
import time


def in_time(work, limit):
    last = None

    def call(*args):
        nonlocal last
        if last is None or time.monotonic() - last >= limit:
            last = time.monotonic()
            return work(*args)

    return call
