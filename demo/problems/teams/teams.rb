# The same in Ruby.
least, n, *weights = STDIN.read.split.map(&:to_i)
weights.sort!
light, heavy, teams = 0, n - 1, 0
while light < heavy
  if weights[light] + weights[heavy] >= least
    heavy -= 1
    teams += 1
  end
  light += 1
end
puts teams
