-- All at once.
local n = io.read("n")
local sum = 0
for _ = 1, n do sum = sum + io.read("n") end
io.write(string.format("%d", sum))
os.exit(true)
