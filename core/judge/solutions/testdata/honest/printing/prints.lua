-- It prints on its way.
function loud(n)
  print('n is', n)
  return n * n
end
