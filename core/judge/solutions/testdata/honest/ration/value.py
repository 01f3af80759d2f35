def ration(food, team):
    if team <= 0:
        raise ValueError("nobody to feed")
    return food // team
