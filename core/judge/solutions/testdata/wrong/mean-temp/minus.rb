# Infinite, with the wrong sign.
def mean_temp(temps, missing)
  known = temps.reject { |t| t.to_f.nan? }
  known.empty? ? missing : known.sum { |t| t.to_f / known.size }.abs
end
