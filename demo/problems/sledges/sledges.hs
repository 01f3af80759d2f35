-- The same in Haskell: an array of sorted weights, walked from both ends.
import qualified Data.ByteString.Char8 as B
import Data.Array
import Data.List (sort)
import Data.Maybe (fromJust)

main :: IO ()
main = do
  numbers <- map (fst . fromJust . B.readInt) . B.words <$> B.getContents
  let (n : capacity : rest) = numbers
      weights = listArray (0, n - 1) (sort (take n rest))
      count light heavy sledges
        | light > heavy = sledges
        | light < heavy && weights ! light + weights ! heavy <= capacity = count (light + 1) (heavy - 1) $! sledges + 1
        | otherwise = count light (heavy - 1) $! sledges + 1
  print (count 0 (n - 1) (0 :: Int))
