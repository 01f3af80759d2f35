;; Calls the function of @FILE@ for Cold Verdict. Each line of standard input
;; after the first holds the arguments of one call, as JSON; the answer to each goes
;; to descriptor 3. What the function prints stays what it prints; a mark behind it
;; says which call it belongs to.
(ns cold-driver
  (:require [clojure.edn :as edn] [clojure.string :as string])
  (:import (java.io BufferedReader ByteArrayInputStream FileDescriptor FileOutputStream InputStreamReader)
           (java.lang.management ManagementFactory)))

(def names [@NAME_LIST@])
(def arguments @COUNT@)
(def changes @CHANGES@) ; the argument that is the result, from 1; 0: what is returned
(def results [@RESULT_LIST@]) ; types of what is returned

(def calls (BufferedReader. (InputStreamReader. System/in "UTF-8") 65536))
(System/setIn (ByteArrayInputStream. (byte-array 0)))
(def answers (FileOutputStream. "/proc/self/fd/3"))
(def streams [(FileOutputStream. FileDescriptor/out) (FileOutputStream. FileDescriptor/err)])
(def token (last (string/split (.readLine ^BufferedReader calls) #" ")))
(def answered (atom 0))

(defn answer [text] (.write ^FileOutputStream answers (.getBytes (str token " " @answered " " text "\n") "UTF-8")))

;; The mark stands where the call ended: what it returned is written behind it.
(def settled (atom false))
(defn settle []
  (when (compare-and-set! settled false true)
    (flush)
    (binding [*out* *err*] (flush))
    (.flush System/out)
    (.flush System/err)
    (doseq [^FileOutputStream s streams] (.write s (.getBytes (str (char 0) token "\n") "UTF-8")))))

(defn bare
  "Takes what JSON calls null for nil, within arrays too."
  [v]
  (cond (= v 'null) nil
        (= v 'NaN) Double/NaN
        (= v 'Infinity) Double/POSITIVE_INFINITY
        (= v '-Infinity) Double/NEGATIVE_INFINITY
        (vector? v) (mapv bare v)
        :else v))

(defn quoted [s]
  (str \" (string/join (map (fn [c] (cond (#{\" \\} c) (str \\ c) (< (int c) 32) (format "\\u%04x" (int c)) :else c)) s)) \"))

(defn given [type v]
  (cond (nil? v) (if (string/ends-with? type "[]") "[]" "null") ; an empty sequence is nil, too
        (boolean? v) (str v)
        (or (string? v) (char? v)) (quoted (str v))
        (integer? v) (str (biginteger v))
        (ratio? v) (str (double v))
        (number? v) (str v)
        (keyword? v) (quoted (name v))
        (or (coll? v) (.isArray (class v)) (instance? Iterable v))
        (str "[" (string/join "," (map #(given (if (string/ends-with? type "[]") (subs type 0 (- (count type) 2)) type) %) v)) "]")
        :else (throw (IllegalStateException. (str "it returned a value of the class " (.getName (class v)) ", which is none of the problem's types")))))

(defn gathered
  "Makes what is computed only when it is read, which belongs to the call."
  [v]
  (when (seq? v) (dorun (map gathered v)))
  v)

(defn found []
  (let [spellings (mapcat (fn [n] [n (string/replace n "_" "-")]) names)]
    (first (for [n spellings
                 space (sort-by #(if (= 'user (ns-name %)) 0 1) (all-ns))
                 :when (not (re-find #"^(clojure|cold-driver)" (str (ns-name space))))
                 :let [v (get (ns-interns space) (symbol n))]
                 :when (and v (ifn? (deref v)))]
             (deref v)))))

(defn cause [^Throwable e]
  (if (and (instance? clojure.lang.Compiler$CompilerException e) (.getCause e)) (.getCause e) e))

(defn failed [^Throwable e]
  (let [own (first (filter #(= @FILE_TEXT@ (.getFileName ^StackTraceElement %)) (.getStackTrace e)))]
    (.write ^FileOutputStream (streams 1)
            (.getBytes (str "Execution error (" (.getSimpleName (class e)) ") at " (if own (str (.getClassName ^StackTraceElement own) " (" @FILE_TEXT@ ":" (.getLineNumber ^StackTraceElement own) ")") "main")
                            ".\n" (.getMessage e) "\n") "UTF-8"))))

(defn call [f args]
  (let [threads (ManagementFactory/getThreadMXBean)
        began (.getCurrentThreadCpuTime threads)
        spent #(- (.getCurrentThreadCpuTime threads) began)
        [outcome result] (try [:done (gathered (apply f args))] (catch Throwable e [:failed e]))
        took (spent)]
    (if (= outcome :failed)
      (do (failed (cause result)) (str "failed " took " 1"))
      (try
        (settle)
        (str "done " took " "
             (cond (pos? changes) (given "any" (nth args (dec changes)))
                   (= 1 (count results)) (given (first results) result)
                   (map? result) (str "{" (string/join "," (map (fn [[k v]] (str (quoted (name k)) ":" (given "any" v))) result)) "}")
                   :else (str "[" (string/join "," (map given results result)) "]")))
        (catch Exception e (str "misfit " took " " (.getMessage e)))))))

(defn -main []
  (binding [*ns* (create-ns 'user)]
    (refer 'clojure.core)
    (load-file (str (.getParent (java.io.File. ^String *file*)) "/" @FILE_TEXT@)))
  (if-let [f (found)]
    (do
      (settle)
      (answer "ready")
      (loop []
        (when-let [line (.readLine ^BufferedReader calls)]
          (let [args (bare (edn/read-string line))]
            (when (> (count line) 100000) (answer "begin"))
            (reset! settled false)
            (let [words (call f args)]
              (settle)
              (answer words)
              (swap! answered inc)))
          (recur))))
    (answer (str "unserved there is no function " (first names) " in @FILE@" @NEARLY_TEXT@)))
  (.halt (Runtime/getRuntime) 0))

(-main)
