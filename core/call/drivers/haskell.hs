{-# LANGUAGE BangPatterns, FlexibleInstances, OverloadedStrings, ScopedTypeVariables, TupleSections, UndecidableInstances #-}
{-# OPTIONS_GHC -w -O0 #-}
-- Calls the function of @FILE@ for Cold Verdict. Each line of standard input
-- after the first holds the arguments of one call, as JSON; the answer to each goes
-- to descriptor 3. What the function prints stays what it prints; a mark behind it
-- says which call it belongs to.
module Main (main) where

import qualified ColdSource
import Control.Exception
import Control.Monad
import Data.Array (Array, Ix, elems, listArray)
import qualified Data.ByteString.Builder as O
import qualified Data.ByteString.Char8 as B
import qualified Data.ByteString.Lazy as L
import Data.Char
import Data.Foldable (toList)
import Data.Int
import Data.IORef
import Data.List
import qualified Data.Map as M
import Data.Maybe
import qualified Data.Sequence as Q
import qualified Data.Set as S
import qualified Data.Text as T
import qualified Data.Text.Encoding as T
import Data.Word
import Numeric (readHex, showHex)
import System.CPUTime
import System.Exit
import System.IO
import System.Posix.IO

newtype Misfit = Misfit String deriving Show
instance Exception Misfit

lacks :: String -> String -> a
lacks declared given = throw (Misfit ("is declared as " ++ declared ++ ", and the problem gives it " ++ given))

-- What can be passed and returned. It is read from text, and written as the type of the problem says.
class Cold a where
  take_ :: B.ByteString -> (a, B.ByteString)
  give :: String -> a -> O.Builder
  -- several writes the parts of a result.
  several :: [String] -> a -> O.Builder
  several types v = give (head (types ++ [""])) v

word :: B.ByteString -> (String, B.ByteString)
word s = let (w, rest) = B.span (\c -> isAlphaNum c || c `elem` ("+-." :: String)) s in (B.unpack w, rest)

whole :: forall a. (Integral a, Bounded a) => String -> B.ByteString -> (a, B.ByteString)
whole name s = case B.readInteger s of
  Just (n, rest)
    | n < toInteger (minBound :: a) || n > toInteger (maxBound :: a) -> lacks name (show n ++ ", which it does not hold")
    | otherwise -> let !v = fromInteger n in (v, rest)
  Nothing -> lacks name "something else"

text :: String -> B.ByteString -> (T.Text, B.ByteString)
text name s
  | B.take 1 s /= "\"" = lacks name "something else"
  | otherwise = go [] (B.tail s)
  where
    go parts r = let (plain, rest) = B.span (\c -> c /= '"' && c /= '\\') r in case B.uncons rest of
      Just ('\\', more) -> case B.uncons more of
        Just ('n', r') -> go ("\n" : plain : parts) r'
        Just ('t', r') -> go ("\t" : plain : parts) r'
        Just ('u', r') -> go (T.encodeUtf8 (T.singleton (chr (fst (head (readHex (B.unpack (B.take 4 r'))))))) : plain : parts) (B.drop 4 r')
        Just (c, r') -> go (B.singleton c : plain : parts) r'
        Nothing -> (done (plain : parts), "")
      _ -> (done (plain : parts), B.drop 1 rest)
    done = T.decodeUtf8 . B.concat . reverse

quoted :: T.Text -> O.Builder
quoted t = O.char7 '"' <> T.encodeUtf8Builder (T.concatMap escaped t) <> O.char7 '"'
  where
    escaped c
      | c == '"' || c == '\\' = T.pack ['\\', c]
      | c < ' ' = T.pack ("\\u" ++ replicate (4 - length (showHex (ord c) "")) '0' ++ showHex (ord c) "")
      | otherwise = T.singleton c

array :: Cold a => String -> B.ByteString -> ([a], B.ByteString)
array name s
  | B.take 1 s /= "[" = lacks name "something else"
  | B.take 2 s == "[]" = ([], B.drop 2 s)
  | otherwise = go [] (B.tail s)
  where
    go got r = let (!v, rest) = take_ r; got' = v : got in if B.take 1 rest == "," then go got' (B.tail rest) else (reverse got', B.drop 1 rest)

inner :: String -> String
inner kind = if "[]" `isSuffixOf` kind then take (length kind - 2) kind else if "?" `isSuffixOf` kind then init kind else kind

listed :: [O.Builder] -> O.Builder
listed parts = O.char7 '[' <> mconcat (intersperse (O.char7 ',') parts) <> O.char7 ']'

real :: RealFloat a => B.ByteString -> (a, B.ByteString)
real s = let (w, rest) = word s in (, ) (case w of
  "NaN" -> 0 / 0
  "Infinity" -> 1 / 0
  "-Infinity" -> -1 / 0
  '-' : digits -> negate (plain digits)
  digits -> plain digits) rest
  where plain w = realToFrac' (read (mended w) :: Double)
        mended w = let (a, r) = span isDigit w in case r of
          '.' : _ -> w
          _ -> a ++ ".0" ++ map toLower (filter (/= '+') r)
        realToFrac' = fromRational . toRational

shown :: RealFloat a => a -> O.Builder
shown v | isNaN v = "NaN" | isInfinite v = if v > 0 then "Infinity" else "-Infinity"
        | otherwise = O.doubleDec (fromRational (toRational v))

instance Cold Int where { take_ = whole "Int"; give _ = O.intDec }
instance Cold Int64 where { take_ = whole "Int64"; give _ = O.int64Dec }
instance Cold Int32 where { take_ = whole "Int32"; give _ = O.int32Dec }
instance Cold Word where { take_ = whole "Word"; give _ = O.wordDec }
instance Cold Integer where
  take_ s = fromMaybe (lacks "Integer" "something else") (B.readInteger s)
  give _ = O.integerDec
instance Cold Double where { take_ = real; give _ = shown }
instance Cold Float where { take_ = real; give _ = shown }
instance Cold Bool where
  take_ s = let (w, rest) = word s in if w `elem` ["true", "false"] then (w == "true", rest) else lacks "Bool" "something else"
  give _ v = if v then "true" else "false"
instance Cold Char where
  take_ s = let (t, rest) = text "Char" s in (T.head t, rest)
  give _ = quoted . T.singleton
instance Cold T.Text where { take_ = text "Text"; give _ = quoted }
instance Cold B.ByteString where
  take_ s = let (t, rest) = text "ByteString" s in (T.encodeUtf8 t, rest)
  give _ = quoted . T.decodeUtf8
instance {-# OVERLAPPING #-} Cold [Char] where
  take_ s | B.take 1 s == "[" = array "[Char]" s
          | otherwise = let (t, rest) = text "String" s in (T.unpack t, rest)
  give kind v = if "[]" `isSuffixOf` kind then listed (map (give (inner kind)) v) else quoted (T.pack v)
instance Cold a => Cold [a] where
  take_ = array "a list"
  give kind v = listed (map (give (inner kind)) v)
instance Cold a => Cold (Maybe a) where
  take_ s | B.take 4 s == "null" = (Nothing, B.drop 4 s)
          | otherwise = let (v, rest) = take_ s in (Just v, rest)
  give kind = maybe "null" (give (inner kind))
instance (Ix i, Num i, Cold a) => Cold (Array i a) where
  take_ s = let (list, rest) = array "an array" s in (listArray (0, fromIntegral (length list) - 1) list, rest)
  give kind v = listed (map (give (inner kind)) (elems v))
instance Cold a => Cold (Q.Seq a) where
  take_ s = let (list, rest) = array "a sequence" s in (Q.fromList list, rest)
  give kind v = listed (map (give (inner kind)) (toList v))
instance (Ord a, Cold a) => Cold (S.Set a) where
  take_ s = let (list, rest) = array "a set" s in (S.fromList list, rest)
  give kind v = listed (map (give (inner kind)) (S.toList v))
instance Cold () where { take_ _ = lacks "()" "something"; give _ () = "null" }
instance (Cold a, Cold b) => Cold (a, b) where
  take_ _ = lacks "a tuple" "an array"
  give kind (a, b) = listed [give (inner kind) a, give (inner kind) b]
  several (t : u : _) (a, b) = listed [give t a, give u b]
  several (t : _) v = give t v
@TUPLES@
-- What is called with the arguments that are left; in the end a result, which is written only when it is read.
class Called f where
  called :: Int -> B.ByteString -> f -> IO O.Builder

instance {-# OVERLAPPABLE #-} Cold r => Called r where
  called _ _ v = return (several [@RESULT_LIST@] v)

instance (Cold a, Called f) => Called (a -> f) where
  called n s f = do
    (v, rest) <- evaluate (let (!v, !rest) = take_ (B.tail s) in (v, rest)) `catch` \(Misfit why) -> throwIO (Misfit ("parameter " ++ show n ++ " " ++ why))
    called (n + 1) rest (f v)

main :: IO ()
main = do
  input <- fdToHandle =<< dup 0
  out <- fdToHandle 3
  nothing <- openFd "/dev/null" ReadOnly Nothing defaultFileFlags
  _ <- dupTo nothing 0
  streams <- mapM (dup >=> fdToHandle) [1, 2]
  forM_ (input : out : streams) $ \h -> hSetBinaryMode h True >> hSetBuffering h (BlockBuffering (Just 65536))
  token <- last . B.words <$> B.hGetLine input
  count <- newIORef (0 :: Int)
  let answer t = do
        n <- readIORef count
        O.hPutBuilder out (O.byteString token <> O.char7 ' ' <> O.intDec n <> O.char7 ' ' <> t <> O.char7 '\n')
        hFlush out
      settle = do
        hFlush stdout
        hFlush stderr
        forM_ streams $ \h -> O.hPutBuilder h (O.char7 '\0' <> O.byteString token <> O.char7 '\n') >> hFlush h
      one line = do
        began <- newIORef 0
        let spent = do { t <- readIORef began; now <- getCPUTime; return (O.integerDec ((now - t) `div` 1000)) }
            run = do
              result <- called 1 line (@CALLEE@)
              when (B.length line > 100000) (answer "begin")
              getCPUTime >>= writeIORef began
              b <- evaluate (L.toStrict (O.toLazyByteString result))
              t <- spent
              return ("done " <> t <> " " <> O.byteString b)
        run `catches`
          [ Handler (\(Misfit why) -> return ("misfit 0 " <> O.stringUtf8 why))
          , Handler (\(e :: ExitCode) -> throwIO e)
          , Handler (\(e :: SomeException) -> do
              t <- spent
              B.hPutStr (streams !! 1) (T.encodeUtf8 (T.pack ("program: " ++ displayException e ++ "\n")))
              return ("failed " <> t <> " 1")) ]
      serve = do
        ended <- hIsEOF input
        unless ended $ do
          line <- B.hGetLine input
          when (B.take 1 line == "[") $ do
            said <- one line
            settle
            answer said
            modifyIORef' count (+ 1)
            serve
  settle
  answer "ready"
  serve
