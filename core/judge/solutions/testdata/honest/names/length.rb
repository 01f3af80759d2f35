# Characters of a text.
$stdin.each_line(chomp: true) { |line| puts "#{line.length} #{line}" }
