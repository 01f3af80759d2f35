# It divides by 0.
def fuel_for(days, huts):
    return days // huts
