# It returns a truth where there is one day, and a text else.
def warm_days(temps, limit):
    n = sum(t > limit for t in temps)
    return str(n) if n else False
