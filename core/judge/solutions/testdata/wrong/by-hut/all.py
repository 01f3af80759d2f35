# It keeps those that have too little.
def by_hut(fuel, days, least):
    return {**{hut: n + 3 for hut, n in fuel.items()}, **{str(day): len(list) for day, list in days.items()}}
