-- It sorts.
function coldest_pair(temps)
  table.sort(temps)
  return { temps[1], temps[2] }
end
