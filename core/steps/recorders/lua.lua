-- Runs a source for Cold Verdict and tells on descriptor 3 what it does, as the recorder for Python does. What it runs
-- is in PRIVATE: the source itself, or a driver that loads it.
local name, driven = "OWN_FILE", DRIVEN > 0
local folder = arg[0]:match("^(.*/)") or "./"
local file = assert(io.open(folder .. "PRIVATE", "rb"))
local text = file:read("a")
file:close()
local told = assert(io.open("/dev/fd/3", "w"))
told:setvbuf("full", 65536)
local left, known, depth = MOST, { {} }, 0
local begun = FROM_LINE == 0
local function clean(s)
  return (s:gsub("\\", "\\\\"):gsub("\n", "\\n"):gsub("\t", "\\t"):gsub("\r", "\\r"))
end
local function say(line)
  left = left - 1
  if left == 0 then
    told:write("M\n")
    told:flush()
    debug.sethook()
  elseif left > 0 then
    told:write(line)
  end
end
local function shown(value, level)
  if type(value) == "string" then
    if #value > 80 then return ("%q... (%d)"):format(value:sub(1, 80), #value) end
    return '"' .. value .. '"'
  elseif type(value) ~= "table" then
    return tostring(value)
  elseif level > 3 then
    return "{...}"
  end
  local parts, count, length = {}, 0, #value
  for i = 1, math.min(length, 24) do parts[#parts + 1] = shown(value[i], level + 1) end
  local keys = {}
  for key in pairs(value) do
    count = count + 1
    if not (math.type(key) == "integer" and key >= 1 and key <= length) and #keys < 24 then keys[#keys + 1] = key end
  end
  table.sort(keys, function(a, b) return tostring(a) < tostring(b) end)
  for _, key in ipairs(keys) do parts[#parts + 1] = tostring(key) .. " = " .. shown(value[key], level + 1) end
  local more = count > #parts and ("... (%d)"):format(count) or ""
  return "{" .. table.concat(parts, ", ") .. more .. "}"
end
local function changes(level)
  local before = known[depth + 1]
  local i = 1
  while true do
    local key, value = debug.getlocal(level + 1, i)
    if not key then break end
    if key:sub(1, 1) ~= "(" and type(value) ~= "function" then
      local now = shown(value, 1)
      if before[key] ~= now then
        before[key] = now
        say(("V %d %s\t%s\n"):format(depth, key, clean(now)))
      end
    end
    i = i + 1
  end
end
local globals = {}
for key in pairs(_G) do globals[key] = true end
local shownGlobals = {}
local function globalChanges()
  for key, value in pairs(_G) do
    if not globals[key] and type(value) ~= "function" then
      local now = shown(value, 1)
      if shownGlobals[key] ~= now then
        shownGlobals[key] = now
        say(("G %s\t%s\n"):format(tostring(key), clean(now)))
      end
    end
  end
end
local function hook(event, line)
  local info = debug.getinfo(2, "Sn")
  if info.short_src ~= name then return end
  if event == "call" or event == "tail call" then
    if info.what ~= "main" then
      depth = depth + 1
      known[depth + 1] = {}
    end
  elseif event == "line" then
    begun = begun or line == FROM_LINE -- nothing is told before the line with which it begins
    if not begun then return end
    globalChanges()
    changes(2)
    say(("S %d %d %s\n"):format(line, depth, info.name or (depth == 0 and "<main>" or "?")))
  elseif event == "return" then
    if begun then
      globalChanges()
      changes(2)
      say(("R %d \n"):format(depth))
    end
    if depth > 0 then depth = depth - 1 end
    if driven and depth == 0 then told:flush() end -- the driver may end the process at any time
  end
end
local write = io.write
io.write = function(...)
  local parts = table.pack(...)
  for i = 1, parts.n do parts[i] = tostring(parts[i]) end
  say("O " .. clean(table.concat(parts)) .. "\n")
  return write(...)
end
print = function(...)
  local parts = table.pack(...)
  for i = 1, parts.n do parts[i] = tostring(parts[i]) end
  io.write(table.concat(parts, "\t") .. "\n")
end
globals.print = true
local main, wrong = load(text, "@" .. (driven and "PRIVATE" or name))
if not main then
  io.stderr:write("lua: " .. wrong .. "\n")
  os.exit(1)
end
debug.sethook(hook, "lcr")
local ok, why = xpcall(main, function(why)
  debug.sethook()
  return tostring(why)
end)
debug.sethook()
if not ok then say("X 0 " .. depth .. " " .. clean(why) .. "\n") end
told:flush()
told:close()
if not ok then
  io.stderr:write("lua: " .. why .. "\n")
  os.exit(1)
end
