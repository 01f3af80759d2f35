def told(word, nexts, lines, rest, left, used, len, text)
  lines + [rest, text, (word + nexts.sum + left * 2 + used.sum + len - 5).to_i.to_s]
end
