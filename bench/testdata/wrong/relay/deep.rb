# alone: recursion, deeper than the language goes.
numbers = $stdin.read.split.map(&:to_i)
n, m = numbers.shift(2)
$links = Array.new(n + 1) { [] }
numbers.each_slice(2) { |a, b| $links[a] << b; $links[b] << a }
$seen = Array.new(n + 1, false)

def visit(beacon)
  $seen[beacon] = true
  1 + $links[beacon].sum { |other| $seen[other] ? 0 : visit(other) }
end

(1..n).each { |beacon| puts "#{beacon} #{visit(beacon)}" unless $seen[beacon] }
