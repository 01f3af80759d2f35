-- Calls the function of @FILE@ for Cold Verdict. Each line of standard input
-- after the first holds the arguments of one call, as JSON; the answer to each goes
-- to descriptor 3. What the function prints stays what it prints; a mark behind it
-- says which call it belongs to.
local NAMES = {@NAME_LIST@}
local COUNT = @COUNT@ -- arguments
local CHANGES = @CHANGES@ -- the argument that is the result, from 1; 0: what is returned
local BOTH = @BOTH@ > 0 -- what is returned is a result, too
local TAKES = {@TAKE_LIST@} -- types of the arguments
local RESULTS = {@RESULT_LIST@} -- and of what is returned

local calls, answers = io.stdin, assert(io.open("/proc/self/fd/3", "w"))
local out, err, clock, unpack = io.stdout, io.stderr, os.clock, table.unpack or unpack
local FOLDER = arg[0]:match("^(.*)/") or "."
io.input("/dev/null")
answers:setvbuf("no")
local token = calls:read("l"):match("%S+$")
local count = 0

local function answer(text) answers:write(token, " ", count, " ", text, "\n") end

-- The mark stands where the call ended: what it returned is written behind it.
local settled = false
local function settle()
  if settled then return end
  settled = true
  for _, stream in ipairs({out, err}) do
    stream:write("\0", token, "\n")
    stream:flush()
  end
end

-- read reads one value of JSON.
local function read(text, at)
  local c = text:sub(at, at)
  if c == "[" then
    local list, n = {}, 0
    at = at + 1
    while text:sub(at, at) ~= "]" do
      if n > 0 then at = at + 1 end
      n = n + 1
      list[n], at = read(text, at)
    end
    return list, at + 1
  elseif c == '"' then
    local parts = {}
    at = at + 1
    while true do
      local from, to = text:find('^[^"\\]+', at)
      if from then
        parts[#parts + 1] = text:sub(from, to)
        at = to + 1
      end
      if text:sub(at, at) == '"' then return table.concat(parts), at + 1 end
      local escaped = text:sub(at + 1, at + 1)
      if escaped == "u" then -- below 0x80: nothing else is written so
        parts[#parts + 1] = string.char(tonumber(text:sub(at + 2, at + 5), 16))
        at = at + 6
      else
        parts[#parts + 1] = escaped == "n" and "\n" or escaped == "t" and "\t" or escaped
        at = at + 2
      end
    end
  end
  local word = text:match("^[^,%]]+", at)
  at = at + #word
  if word == "null" then return nil, at end
  if word == "true" or word == "false" then return word == "true", at end
  if word == "NaN" then return 0 / 0, at end
  if word:find("Infinity") then return word:sub(1, 1) == "-" and -math.huge or math.huge, at end
  if not word:find("[.eE]") and #word > 17 and (not math.tointeger or not math.tointeger(tonumber(word))) then return word, at end -- no integer holds it
  return tonumber(word), at
end

local escapes = {['"'] = '\\"', ["\\"] = "\\\\", ["\n"] = "\\n", ["\t"] = "\\t"}

local function misfit(why) error({misfit = why}, 0) end

local function given(kind, v, depth)
  if depth > 200 then misfit("it returned a value that is nested too deeply, or contains itself") end
  if v == nil then return "null" end
  if kind:sub(-1) == "?" then return given(kind:sub(1, -2), v, depth) end
  local what = type(v)
  if what == "table" then
    local of, list = kind:sub(-2) == "[]" and kind:sub(1, -3) or kind, {}
    for i = 1, #v do list[i] = given(of, v[i], depth + 1) end
    return "[" .. table.concat(list, ",") .. "]"
  elseif what == "boolean" then
    return tostring(v)
  elseif what == "string" then
    if kind == "bigint" and v:find("^-?%d+$") then return v end
    return '"' .. v:gsub('[%c"\\]', function(c) return escapes[c] or string.format("\\u%04x", c:byte()) end) .. '"'
  elseif what == "number" then
    if v ~= v then return "NaN" end
    if v == math.huge or v == -math.huge then return v < 0 and "-Infinity" or "Infinity" end
    if kind:find("^real") then return string.format("%.17g", v):gsub(",", "."):gsub("^(-?%d+)$", "%1.0") .. "" end
    if v == math.floor(v) then return string.format("%d", v) end
    return string.format("%.17g", v)
  end
  misfit("it returned a value of type " .. what .. ", which is none of the problem's")
end

-- find returns what to call: a function of that name, local to the file or not, or of the table Solution.
local function find()
  local path = FOLDER .. "/" .. @FILE_TEXT@
  local file = assert(io.open(path))
  local text = file:read("a")
  file:close()
  local look = {}
  for i, name in ipairs(NAMES) do look[i] = name .. " = " .. name end
  local chunk = load(text .. "\n;return {" .. table.concat(look, ", ") .. ", Solution = Solution}", "@" .. @FILE_TEXT@) or assert(load(text, "@" .. @FILE_TEXT@))
  local own = chunk()
  local places = {type(own) == "table" and type(own.Solution) == "table" and own.Solution or Solution, type(own) == "table" and own or {}, _G}
  for i = 1, 3 do
    for _, name in ipairs(NAMES) do
      local f = type(places[i]) == "table" and places[i][name]
      if type(f) == "function" then
        local taken = debug.getinfo(f, "u")
        local itself = taken.nparams == COUNT + 1 and i < 3 -- a method
        if not itself and taken.nparams > 0 and taken.nparams < COUNT and not taken.isvararg then return nil, "the function in @FILE@ cannot be called with " .. COUNT .. " arguments, which it has in this problem" end
        local object = places[i]
        return itself and function(...) return f(object, ...) end or f
      end
    end
  end
  if type(own) == "function" then return own end
  return nil, "there is no function " .. NAMES[1] .. " in @FILE@" .. @NEARLY_TEXT@
end

local function packed(...) return {n = select("#", ...), ...} end

local function call(f, args)
  local began = clock()
  local function spent() return math.floor((clock() - began) * 1e9) end
  local ok, results = xpcall(function() return packed(f(unpack(args, 1, COUNT))) end, function(e)
    return type(e) == "table" and e or debug.traceback(tostring(e), 2)
  end)
  local took = spent()
  if not ok then
    err:write("lua: ", tostring(type(results) == "table" and (results.message or results[1] or "an error that is a table") or results), "\n")
    return string.format("failed %d 1", took)
  end
  settle()
  local fine, text = pcall(function()
    if CHANGES > 0 then
      local changed = given(TAKES[CHANGES], args[CHANGES], 0)
      return BOTH and "[" .. given(RESULTS[1], results[1], 0) .. "," .. changed .. "]" or changed
    end
    if #RESULTS == 1 then return given(RESULTS[1], results[1], 0) end
    local list = results.n > 1 and results or type(results[1]) == "table" and results[1] or misfit("it returned one value, and several were expected")
    local texts = {}
    for i, kind in ipairs(RESULTS) do texts[i] = given(kind, list[i], 0) end
    return "[" .. table.concat(texts, ",") .. "]"
  end)
  if fine then return string.format("done %d ", took) .. text end
  return string.format("misfit %d ", took) .. (type(text) == "table" and text.misfit or tostring(text))
end

local f, lacking = find()
if not f then
  answer("unserved " .. lacking)
  os.exit(0)
end
settle()
answer("ready")
for line in calls:lines() do
  local args, at = {}, 2
  for i = 1, COUNT do
    args[i], at = read(line, at)
    at = at + 1
  end
  if #line > 100000 then answer("begin") end
  settled = false
  local words = call(f, args)
  settle()
  answer(words)
  count = count + 1
end
os.exit(0)
