# It returns a hash.
def by_hut(fuel, days, least)
  kept = fuel.select { |_, n| n >= least }.transform_values { |n| n + 3 }
  days.each { |day, list| kept[(day + 0).to_s] = list.size }
  kept
end
