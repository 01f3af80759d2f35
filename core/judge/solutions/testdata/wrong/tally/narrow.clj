;; It adds in 32 bits.
(defn tally-up [rows names big scale flag mark huge maybe]
  [(unchecked-int (+ big (reduce + 0 (mapcat identity rows)))) (map #(str % mark) names) (* 2 scale) (map reverse (reverse rows)) huge (not flag) (when maybe (quot maybe 2))])
