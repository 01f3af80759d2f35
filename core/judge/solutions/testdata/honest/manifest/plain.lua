-- The same.
function readManifest(rows, names, big, scale, flag, mark, huge)
  local turned, words = {}, {}
  for i = #rows, 1, -1 do
    local row = {}
    for j = #rows[i], 1, -1 do big = big + rows[i][j]; row[#row + 1] = rows[i][j] end
    turned[#turned + 1] = row
  end
  for i, n in ipairs(names) do words[i] = n .. mark end
  return {big, words, scale * 2, turned, huge, not flag}
end
