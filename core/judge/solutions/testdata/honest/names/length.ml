(* The first bytes of characters. *)
let () = try while true do
  let line = read_line () in
  let n = ref 0 in
  String.iter (fun c -> if Char.code c land 0xc0 <> 0x80 then incr n) line;
  Printf.printf "%d %s\n" !n line
done with End_of_file -> ()
