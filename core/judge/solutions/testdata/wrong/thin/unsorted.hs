-- It does not sort.
thinOut :: (Num a) => [a] -> a -> [a]
thinOut temps by = map (subtract by) temps
