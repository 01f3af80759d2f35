{-# LANGUAGE TupleSections #-}
-- It drops the last name.
module Main where

import Data.List (sort)

tallyUp :: [[Int]] -> [String] -> Int -> Double -> Bool -> Char -> Integer -> Maybe Int
        -> (Int, [String], Double, [[Int]], Integer, Bool, Maybe Int)
tallyUp rows names big scale flag mark huge maybe =
  (big + sum (concat rows), map (++ [mark]) (init names), scale * 2, map reverse (reverse rows), huge, not flag, fmap (`div` 2) maybe)

main :: IO ()
main = print (sort [1, 2])
