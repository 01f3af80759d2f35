# The same in Ruby.
n, capacity, *weights = STDIN.read.split.map(&:to_i)
weights.sort!
light, heavy, sledges = 0, n - 1, 0
while light <= heavy
  light += 1 if light < heavy && weights[light] + weights[heavy] <= capacity
  heavy -= 1
  sledges += 1
end
puts sledges
