def packed(temps, missing)
  temps.reject! { |t| t == missing }
  temps.size
end
