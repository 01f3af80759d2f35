-- It returns three.
function two_ends(depths)
  local a, b = 1, 1
  for i, d in ipairs(depths) do
    if d < depths[a] then a = i end
    if d > depths[b] then b = i end
  end
  return depths[a], depths[b], { a - 1, b - 1 }
end
