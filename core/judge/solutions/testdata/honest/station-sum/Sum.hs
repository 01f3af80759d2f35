-- Lazy input.
main :: IO ()
main = interact $ \text -> show (sum (map read (tail (words text)) :: [Integer]))
