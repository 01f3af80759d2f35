-- The same in Lua.
local n, capacity = io.read("n", "n")
local weights = {}
for i = 1, n do weights[i] = io.read("n") end
table.sort(weights)
local light, heavy, sledges = 1, n, 0
while light <= heavy do
  if light < heavy and weights[light] + weights[heavy] <= capacity then light = light + 1 end
  heavy = heavy - 1
  sledges = sledges + 1
end
print(sledges)
