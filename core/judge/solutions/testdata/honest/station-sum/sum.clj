;; A lazy sequence, and what is printed last.
(let [words (re-seq #"\S+" (slurp *in*))]
  (print (reduce + (map #(Long/parseLong %) (rest words))))
  (flush))
