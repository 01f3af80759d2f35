# A text that grows.
n = gets.to_i
text = +''
1.upto(n) { |i| text << "day #{i}: #{i * 7 % 40 - 20}\n" }
print text
