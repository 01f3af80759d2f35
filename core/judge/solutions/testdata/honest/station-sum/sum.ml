(* Scanned. *)
let () =
  let n = Scanf.scanf " %d" (fun x -> x) in
  let sum = ref 0 in
  for _ = 1 to n do sum := !sum + Scanf.scanf " %d" (fun x -> x) done;
  at_exit (fun () -> print_int !sum)
