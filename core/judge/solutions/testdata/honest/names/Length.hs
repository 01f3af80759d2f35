-- Characters of a text.
main :: IO ()
main = interact (unlines . map (\l -> show (length l) ++ " " ++ l) . lines)
