;; It is a lazy sequence.
(defn lazy-days [n] (map #(inc (* 2 %)) (range n)))
