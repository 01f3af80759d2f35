def is_open(case, hut):
    return hut in case.opens
