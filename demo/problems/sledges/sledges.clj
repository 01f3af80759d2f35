;; The same in Clojure: a long array, walked from both ends.
(let [[n capacity & weights] (map #(Long/parseLong %) (re-seq #"\d+" (slurp *in*)))
      sorted (long-array (sort (take n weights)))
      capacity (long capacity)]
  (loop [light 0 heavy (dec (alength sorted)) sledges 0]
    (if (> light heavy)
      (println sledges)
      (recur (if (and (< light heavy) (<= (+ (aget sorted light) (aget sorted heavy)) capacity)) (inc light) light)
             (dec heavy)
             (inc sledges)))))
