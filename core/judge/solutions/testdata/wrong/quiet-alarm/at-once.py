# It does not wait at all.
def settled(alarm, pause):
    def f(*args):
        alarm(*args)
    f.cancel = lambda: None
    return f
