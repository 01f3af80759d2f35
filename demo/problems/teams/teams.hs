-- The same in Haskell: an array of sorted weights, walked from both ends.
import qualified Data.ByteString.Char8 as B
import Data.Array
import Data.List (sort)
import Data.Maybe (fromJust)

main :: IO ()
main = do
  numbers <- map (fst . fromJust . B.readInt) . B.words <$> B.getContents
  let (least : n : rest) = numbers
      weights = listArray (0, n - 1) (sort (take n rest))
      count light heavy teams
        | light >= heavy = teams
        | weights ! light + weights ! heavy >= least = count (light + 1) (heavy - 1) $! teams + 1
        | otherwise = count (light + 1) heavy teams
  print (count 0 (n - 1) (0 :: Int))
