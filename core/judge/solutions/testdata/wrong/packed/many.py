def packed(temps, missing):
    return len(temps) + 1
