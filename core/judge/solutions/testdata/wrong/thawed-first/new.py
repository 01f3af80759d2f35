# It makes a new list of the name.
def thawed_first(temps):
    temps = [t for t in temps if t > 0] + [t for t in temps if t <= 0]
