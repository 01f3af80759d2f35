;; The same in Clojure: a long array, walked from both ends.
(let [[least n & weights] (map #(Long/parseLong %) (re-seq #"\d+" (slurp *in*)))
      sorted (long-array (sort (take n weights)))
      least (long least)]
  (loop [light 0 heavy (dec (alength sorted)) teams 0]
    (cond
      (>= light heavy) (println teams)
      (>= (+ (aget sorted light) (aget sorted heavy)) least) (recur (inc light) (dec heavy) (inc teams))
      :else (recur (inc light) heavy teams))))
