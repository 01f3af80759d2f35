# It says what is wrong.
def fuel_for(days, huts):
    if huts == 0:
        raise ValueError('there are no huts to feed')
    return days // huts
