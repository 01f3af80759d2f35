-- Places are counted from 1.
function any_place(temps, sum)
  for i = 1, #temps do
    for k = i + 1, #temps do if temps[i] + temps[k] == sum then return { i - 1, k - 1 } end end
  end
end
