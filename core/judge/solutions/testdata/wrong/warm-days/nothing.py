# It prints what it should return.
def warm_days(temps, limit):
    print(sum(t > limit for t in temps))
