# In one order.
def any_place(temps, sum):
    at = {}
    for i, t in enumerate(temps):
        if sum - t in at:
            return [at[sum - t], i]
        at[t] = i
