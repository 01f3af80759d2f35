(* It adds in 32 bits. *)
let tally_up rows (names : string array) big scale flag (mark : char) huge maybe =
  let sum = Int32.to_int (Int32.of_int (Array.fold_left (Array.fold_left (+)) big rows)) in
  let backwards a = Array.init (Array.length a) (fun i -> a.(Array.length a - 1 - i)) in
  (sum, Array.map (fun n -> n ^ String.make 1 mark) names, scale *. 2., Array.map backwards (backwards rows), huge, not flag,
   Option.map (fun x -> x / 2) maybe)

let () = if Array.length Sys.argv > 5 then print_endline "nothing"
