# Each call puts the alarm off.
from threading import Timer
def settled(alarm, pause):
    t = None
    def f(*args):
        nonlocal t
        f.cancel()
        t = Timer(pause / 1000, alarm, args)
        t.start()
    def cancel():
        if t: t.cancel()
    f.cancel = cancel
    return f
