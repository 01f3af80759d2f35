# A list of the answer.
def warm_days(temps, limit):
    return [sum(t > limit for t in temps)]
