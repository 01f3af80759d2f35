;; It takes each kind of value that every language has.
(defn tally-up [rows names big scale flag mark huge maybe]
  [(+ big (reduce + 0 (mapcat identity rows))) (map #(str % mark) names) (* 2 scale) (map reverse (reverse rows)) huge (not flag) (when maybe (quot maybe 2))])
