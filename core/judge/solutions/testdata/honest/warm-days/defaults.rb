# A parameter more, with a default, and one by name.
def warm_days(temps, limit, from = 0, found: 0)
  return found if from == temps.size

  warm_days(temps, limit, from + 1, found: found + (temps[from] > limit ? 1 : 0))
end
