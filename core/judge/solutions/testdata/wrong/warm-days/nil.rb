# Nothing where there is none.
def warm_days(temps, limit)
  temps.count { |t| t > limit } unless temps.empty?
end
