(* The same in OCaml. *)
let () =
  Scanf.scanf " %d %d" (fun least n ->
    let weights = Array.init n (fun _ -> Scanf.scanf " %d" (fun w -> w)) in
    Array.sort compare weights;
    let light = ref 0 and heavy = ref (n - 1) and teams = ref 0 in
    while !light < !heavy do
      if weights.(!light) + weights.(!heavy) >= least then begin decr heavy; incr teams end;
      incr light
    done;
    Printf.printf "%d\n" !teams)
