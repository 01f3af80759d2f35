-- In Haskell nothing is changed: what the function returns is the result.
import Data.List (sort)

thinOut temps by = sort (map (subtract by) temps)
