# Synchronous.
$stdout.sync = true
high = gets.to_i
low = 1
while low < high
  middle = (low + high) / 2
  puts "probe #{middle}"
  gets.chomp == 'deeper' ? low = middle + 1 : high = middle
end
puts "depth #{low}"
