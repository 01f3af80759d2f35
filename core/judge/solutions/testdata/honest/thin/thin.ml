(* In place. *)
let thin_out temps by =
  for i = 0 to Array.length temps - 1 do
    temps.(i) <- temps.(i) - by
  done;
  Array.sort compare temps
