# It takes one twice.
def any_place(temps, sum):
    for i, t in enumerate(temps):
        if sum - t in temps:
            return [i, temps.index(sum - t)]
