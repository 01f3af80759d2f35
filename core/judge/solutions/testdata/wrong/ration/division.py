def ration(food, team):
    return food // team
