# It changes the list that it was given.
def thawed_first(temps):
    temps.sort(key=lambda t: t <= 0)
