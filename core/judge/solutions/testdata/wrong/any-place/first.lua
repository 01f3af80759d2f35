-- It counts from 1.
function any_place(temps, sum)
  for i = 1, #temps do
    for k = i + 1, #temps do if temps[i] + temps[k] == sum then return { i, k } end end
  end
end
