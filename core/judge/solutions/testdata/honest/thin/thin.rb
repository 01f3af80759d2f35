# With a bang.
def thin_out(temps, by)
  temps.map! { |t| t - by }
  temps.sort!
end
