
def deep(n) = deep(n + 1) + 1
def f(k)
  if k == 0
    return 1 / k # fails here
  end
  exit!(0) if k == 2
  return deep(0) if k == 3
  k
end
