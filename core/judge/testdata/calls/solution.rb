def rows(grid) = grid.reverse

def greet(words, sign) = words.map { |w| w + sign }

def measure(n, x, cap)
  return (1 / x == -Float::INFINITY ? nil : n) if cap.nil?

  [n, cap].min
end

class Station
  def extremes(temps, warm)
    [temps.min, warm ? temps.max : 0, temps.sum.to_f / temps.size]
  end
end

def echo(n) = n
