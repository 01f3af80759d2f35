-- Characters of UTF-8.
for line in io.lines() do print(utf8.len(line) .. " " .. line) end
