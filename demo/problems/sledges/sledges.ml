(* The same in OCaml. *)
let () =
  Scanf.scanf " %d %d" (fun n capacity ->
    let weights = Array.init n (fun _ -> Scanf.scanf " %d" (fun w -> w)) in
    Array.sort compare weights;
    let light = ref 0 and heavy = ref (n - 1) and sledges = ref 0 in
    while !light <= !heavy do
      if !light < !heavy && weights.(!light) + weights.(!heavy) <= capacity then incr light;
      decr heavy;
      incr sledges
    done;
    Printf.printf "%d\n" !sledges)
