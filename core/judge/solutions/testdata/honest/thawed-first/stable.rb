# It replaces what is in it.
def thawed_first(temps)
  temps.replace(temps.partition(&:positive?).flatten)
end
