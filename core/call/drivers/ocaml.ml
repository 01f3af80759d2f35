
;;
(* Calls the function of @FILE@ for Cold Verdict. Each line of standard input
   after the first holds the arguments of one call, as JSON; the answer to each goes
   to descriptor 3. What the function prints stays what it prints; a mark behind it
   says which call it belongs to. *)
module Cold_driver = struct
  [@@@ocaml.warning "-a"]
  open! Stdlib

  exception Misfit of string

  let parameter = ref 0
  let lacks declared given =
    raise (Misfit (Printf.sprintf "parameter %d is declared as %s, and the problem gives it %s" !parameter declared given))

  type input = { mutable piece : Bytes.t; mutable at : int; mutable filled : int; mutable total : int; mutable fd : Unix.file_descr }
  let r = { piece = Bytes.create 65536; at = 0; filled = 0; total = 0; fd = Unix.stdin }

  let peek () =
    if r.at >= r.filled then begin
      r.filled <- Unix.read r.fd r.piece 0 65536;
      r.at <- 0;
      r.total <- r.total + r.filled
    end;
    if r.filled = 0 then '\000' else Bytes.unsafe_get r.piece r.at

  let next () = let c = peek () in r.at <- r.at + 1; c

  let word () =
    let b = Buffer.create 16 in
    let rec go () = match peek () with
      | '0' .. '9' | 'a' .. 'z' | 'A' .. 'Z' | '+' | '-' | '.' -> Buffer.add_char b (next ()); go ()
      | _ -> Buffer.contents b in
    go ()

  let rec text () =
    if peek () <> '"' then lacks "string" "something else";
    ignore (next ());
    let b = Buffer.create 16 in
    let rec go () = match next () with
      | '"' | '\000' -> Buffer.contents b
      | '\\' ->
        (match next () with
         | 'n' -> Buffer.add_char b '\n'
         | 't' -> Buffer.add_char b '\t'
         | 'u' ->
           let code = String.init 4 (fun _ -> next ()) in
           Buffer.add_utf_8_uchar b (Uchar.of_int (int_of_string ("0x" ^ code)))
         | c -> Buffer.add_char b c);
        go ()
      | c -> Buffer.add_char b c; go () in
    go ()

  let number name convert () =
    let s = word () in
    if s = "" then lacks name "something else" else
    match convert s with
    | v when true -> v
    | exception Failure _ -> lacks name (s ^ ", which it does not hold")

  let take_int () = number "int" int_of_string ()
  let take_int32 () = number "int32" Int32.of_string ()
  let take_int64 () = number "int64" Int64.of_string ()
  let take_float () = number "float" (function "NaN" -> nan | "Infinity" -> infinity | "-Infinity" -> neg_infinity | s -> float_of_string s) ()
  let take_bool () = number "bool" (function "true" -> true | "false" -> false | s -> failwith s) ()
  let take_digits () = word ()
  let take_char () =
    let s = text () in
    if String.length s <> 1 then lacks "char" "a character that it does not hold" else s.[0]
  let take_string = text
  let take_list name inner () =
    if peek () <> '[' then lacks name "something else";
    ignore (next ());
    let rec go got = match peek () with
      | ']' | '\000' -> ignore (next ()); List.rev got
      | ',' -> ignore (next ()); go got
      | _ -> let v = inner () in go (v :: got) in
    go []
  let take_array name inner () = Array.of_list (take_list name inner ())
  let take_option inner () = if peek () = 'n' then (ignore (word ()); None) else Some (inner ())

  let b = Buffer.create 65536
  let give_int v = Buffer.add_string b (string_of_int v)
  let give_int32 v = Buffer.add_string b (Int32.to_string v)
  let give_int64 v = Buffer.add_string b (Int64.to_string v)
  let give_digits v = Buffer.add_string b v
  let give_bool v = Buffer.add_string b (string_of_bool v)
  let give_float v =
    Buffer.add_string b (match classify_float v with
      | FP_nan -> "NaN"
      | FP_infinite -> if v > 0. then "Infinity" else "-Infinity"
      | _ -> Printf.sprintf "%.17g" v)
  let give_string s =
    Buffer.add_char b '"';
    String.iter (fun c -> match c with
      | '"' | '\\' -> Buffer.add_char b '\\'; Buffer.add_char b c
      | c when c < ' ' -> Buffer.add_string b (Printf.sprintf "\\u%04x" (Char.code c))
      | c -> Buffer.add_char b c) s;
    Buffer.add_char b '"'
  let give_char c = give_string (String.make 1 c)
  let give_unit () = Buffer.add_string b "null"
  let give_list inner v =
    Buffer.add_char b '[';
    List.iteri (fun i one -> if i > 0 then Buffer.add_char b ','; inner one) v;
    Buffer.add_char b ']'
  let give_array inner v = give_list inner (Array.to_list v)
  let give_option inner = function None -> Buffer.add_string b "null" | Some v -> inner v
  let give_several parts = give_list (fun part -> part ()) parts

  let rec put fd s from =
    if from < String.length s then put fd s (from + Unix.write_substring fd s from (String.length s - from))

  let answers : Unix.file_descr = Obj.magic 3
  let streams = ref []
  let token = ref ""
  let count = ref 0
  let answer s = put answers (Printf.sprintf "%s %d %s\n" !token !count s) 0
  (* The mark stands where the call ended: what it returned is written behind it. *)
  let settled = ref false
  let settle () =
    if not !settled then begin
      settled := true;
      flush stdout;
      flush stderr;
      List.iter (fun fd -> put fd ("\000" ^ !token ^ "\n") 0) !streams
    end

  let now () = int_of_float (Sys.time () *. 1e9)

  let rec skip () = match next () with '\n' | '\000' -> () | _ -> skip ()
  let from = ref 0
  let spent = ref 0
  let began = ref (-1)
  let argument n inner =
    parameter := n;
    ignore (next ());
    inner ()
  let starts () =
    skip ();
    if r.total - !from > 100_000 then answer "begin";
    began := now ()
  let ends v = spent := now () - !began; v
  let returned v = let v = ends v in settle (); v

  let call () =
@CALL@

  let () =
    Printexc.record_backtrace true;
    r.fd <- Unix.dup Unix.stdin;
    let nothing = Unix.openfile "/dev/null" [Unix.O_RDONLY] 0 in
    Unix.dup2 nothing Unix.stdin;
    streams := [Unix.dup Unix.stdout; Unix.dup Unix.stderr];
    let rec first () = match next () with
      | '\n' | '\000' -> ()
      | ' ' -> token := ""; first ()
      | c -> token := !token ^ String.make 1 c; first () in
    first ();
    settle ();
    answer "ready";
    while peek () = '[' do
      from := r.total;
      began := -1;
      settled := false;
      Buffer.clear b;
      let said =
        match call () with
        | () -> Printf.sprintf "done %d %s" !spent (Buffer.contents b)
        | exception Misfit why -> if !began < 0 then skip (); "misfit 0 " ^ why
        | exception e ->
          let trace = Printexc.get_backtrace () in
          ends ();
          put (List.nth !streams 1) (Printf.sprintf "Fatal error: exception %s\n%s" (Printexc.to_string e) trace) 0;
          Printf.sprintf "failed %d 1" !spent in
      settle ();
      answer said;
      incr count
    done;
    exit 0
end
