(* It returns how many count, and moves them to the front. *)
let packed (temps : int array) (missing : int) : int =
  let k = ref 0 in
  Array.iter (fun t -> if t <> missing then (temps.(!k) <- t; incr k)) (Array.copy temps);
  !k
