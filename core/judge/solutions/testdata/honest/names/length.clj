;; Code points.
(doseq [line (line-seq (java.io.BufferedReader. *in*))]
  (println (str (.codePointCount line 0 (count line)) " " line)))
