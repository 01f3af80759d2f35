-- The same in Lua.
local least, n = io.read("n", "n")
local weights = {}
for i = 1, n do weights[i] = io.read("n") end
table.sort(weights)
local light, heavy, teams = 1, n, 0
while light < heavy do
  if weights[light] + weights[heavy] >= least then
    heavy = heavy - 1
    teams = teams + 1
  end
  light = light + 1
end
print(teams)
