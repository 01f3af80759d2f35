-- It takes each kind of value that every language has.
local function tally_up(rows, names, big, scale, flag, mark, huge, maybe)
  local sum, turned, words = big, {}, {}
  for i = #rows, 1, -1 do
    local row = {}
    for j = #rows[i], 1, -1 do sum = sum + rows[i][j]; row[#row + 1] = rows[i][j] end
    turned[#turned + 1] = row
  end
  for i, n in ipairs(names) do words[i] = n .. mark end
  return sum, words, scale * 2, turned, huge, not flag, maybe and maybe // 2
end
