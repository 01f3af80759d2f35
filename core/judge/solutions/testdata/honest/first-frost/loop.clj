;; From the first on.
(defn first-frost [temps] (or (first (keep-indexed (fn [i t] (when (neg? t) i)) temps)) -1))
