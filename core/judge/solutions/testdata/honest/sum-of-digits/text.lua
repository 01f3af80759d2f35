-- As a text.
function digit_sum(n)
  local s = 0
  for d in tostring(n):gmatch('%d') do s = s + tonumber(d) end
  return s
end
