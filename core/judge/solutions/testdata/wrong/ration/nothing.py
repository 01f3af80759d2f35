def ration(food, team):
    return food // team if team > 0 else 0
