-- It ends the program.
function loud(n)
  print(n * n)
  os.exit(0)
end
