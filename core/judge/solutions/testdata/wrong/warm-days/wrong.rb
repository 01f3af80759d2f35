# The number of all days.
def warm_days(temps, _limit) = temps.size
