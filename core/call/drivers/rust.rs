
// What follows calls the function for Cold Verdict. Each line of standard input
// after the first holds the arguments of one call, as JSON; the answer to each goes
// to descriptor 3. What the function prints stays what it prints; a mark behind it
// says which call it belongs to.
#[allow(dead_code, unused_variables, unused_mut, unused_imports, clippy::all)]
mod cold_driver {
    use super::*; // for the types that the source names
    use std::collections::{BTreeSet, HashSet, LinkedList, VecDeque};
    use std::fmt::Write as _;
    use std::hash::Hash;
    use std::io::{Read, Write};
    use std::os::unix::io::FromRawFd;

    const CHANGES: usize = @CHANGES@; // the argument that is the result, from 1; 0: what is returned
    const BOTH: bool = @BOTH@ > 0; // what is returned says how much of that argument counts, and is a result, too

    pub struct Reader {
        file: Option<std::fs::File>, // none: it reads a text
        piece: Vec<u8>,
        at: usize,
        end: usize,
        total: u64,
        parameter: usize, // that is being read, from 1
        misfit: Option<String>,
    }

    impl Reader {
        fn of(text: &str) -> Reader {
            Reader { file: None, piece: text.as_bytes().to_vec(), at: 0, end: text.len(), total: 0, parameter: 0, misfit: None }
        }
        fn peek(&mut self) -> u8 {
            if self.at == self.end {
                self.end = match &mut self.file {
                    Some(file) => file.read(&mut self.piece).unwrap_or(0),
                    None => 0,
                };
                self.at = 0;
                self.total += self.end as u64;
                if self.end == 0 {
                    return 0;
                }
            }
            self.piece[self.at]
        }
        fn next(&mut self) -> u8 {
            let c = self.peek();
            if c != 0 {
                self.at += 1;
            }
            c
        }
        fn lacks(&mut self, declared: &str, given: &str) {
            if self.misfit.is_none() {
                self.misfit = Some(format!("parameter {} is declared as {}, and the problem gives it {}", self.parameter, declared, given));
            }
        }
        // Passes over one value, whatever it is.
        fn skip(&mut self) {
            let mut depth = 0;
            loop {
                match self.peek() {
                    0 | b'\n' => return,
                    b'"' => {
                        self.next();
                        loop {
                            match self.next() {
                                b'"' | 0 => break,
                                b'\\' => drop(self.next()),
                                _ => {}
                            }
                        }
                    }
                    b'[' => {
                        depth += 1;
                        self.next();
                    }
                    b']' | b',' if depth == 0 => return,
                    b']' => {
                        depth -= 1;
                        self.next();
                    }
                    _ => drop(self.next()),
                }
            }
        }
        fn word(&mut self) -> String {
            let mut s = String::new();
            while matches!(self.peek(), b'0'..=b'9' | b'-' | b'+' | b'.' | b'a'..=b'z' | b'A'..=b'Z') {
                s.push(self.next() as char);
            }
            s
        }
    }

    pub trait Take: Sized {
        fn take(r: &mut Reader) -> Self;
    }
    pub trait Give {
        fn give(&self, out: &mut String);
        // What it says of a failure that is a value.
        fn fails(&self) -> Option<String> {
            None
        }
    }
    impl<T: Give, E: std::fmt::Debug> Give for Result<T, E> {
        fn give(&self, out: &mut String) {
            if let Ok(value) = self {
                value.give(out);
            }
        }
        fn fails(&self) -> Option<String> {
            self.as_ref().err().map(|e| format!("{:?}", e))
        }
    }

    macro_rules! integers {
        ($($t:ty)*) => {$(
            impl Take for $t {
                fn take(r: &mut Reader) -> Self {
                    let c = r.peek();
                    if c != b'-' && !(c >= b'0' && c <= b'9') {
                        r.lacks(stringify!($t), "something else");
                        r.skip();
                        return 0;
                    }
                    let negative = c == b'-';
                    if negative {
                        r.next();
                    }
                    let mut x: $t = 0;
                    let mut past = false;
                    loop {
                        let c = r.peek();
                        if !(c >= b'0' && c <= b'9') {
                            break;
                        }
                        r.next();
                        let digit = (c - b'0') as $t;
                        let next = x.checked_mul(10).and_then(|x| if negative { x.checked_sub(digit) } else { x.checked_add(digit) });
                        past |= next.is_none();
                        x = next.unwrap_or(0);
                    }
                    if past {
                        r.lacks(stringify!($t), "an integer that it does not hold");
                    }
                    if matches!(r.peek(), b'.' | b'e') {
                        r.lacks(stringify!($t), "a real");
                        r.skip();
                    }
                    x
                }
            }
            impl Give for $t {
                fn give(&self, out: &mut String) {
                    let _ = write!(out, "{}", self);
                }
            }
        )*};
    }
    integers!(i8 i16 i32 i64 i128 isize u8 u16 u32 u64 u128 usize);

    macro_rules! reals {
        ($($t:ty)*) => {$(
            impl Take for $t {
                fn take(r: &mut Reader) -> Self {
                    match r.word().as_str() {
                        "Infinity" => <$t>::INFINITY,
                        "-Infinity" => <$t>::NEG_INFINITY,
                        word => match word.parse() {
                            Ok(x) => x,
                            Err(_) => {
                                r.lacks(stringify!($t), "something else");
                                r.skip();
                                0.0
                            }
                        },
                    }
                }
            }
            impl Give for $t {
                fn give(&self, out: &mut String) {
                    let _ = if self.is_infinite() { write!(out, "{}Infinity", if *self < 0.0 { "-" } else { "" }) } else { write!(out, "{:?}", self) };
                }
            }
        )*};
    }
    reals!(f32 f64);

    impl Take for bool {
        fn take(r: &mut Reader) -> Self {
            match r.word().as_str() {
                "true" => true,
                "false" => false,
                _ => {
                    r.lacks("bool", "something else");
                    r.skip();
                    false
                }
            }
        }
    }
    impl Give for bool {
        fn give(&self, out: &mut String) {
            out.push_str(if *self { "true" } else { "false" });
        }
    }

    impl Take for String {
        fn take(r: &mut Reader) -> Self {
            let c = r.peek();
            if c == b'-' || (c >= b'0' && c <= b'9') {
                return r.word(); // a bigint, which the language has no type for
            }
            if c != b'"' {
                r.lacks("a string", "something else");
                r.skip();
                return String::new();
            }
            r.next();
            let mut bytes = Vec::new();
            loop {
                match r.next() {
                    b'"' | 0 => break,
                    b'\\' => match r.next() {
                        b'n' => bytes.push(b'\n'),
                        b't' => bytes.push(b'\t'),
                        b'u' => {
                            let code: String = (0..4).map(|_| r.next() as char).collect();
                            bytes.push(u8::from_str_radix(&code, 16).unwrap_or(b'?')); // nothing else is written so
                        }
                        c => bytes.push(c),
                    },
                    c => bytes.push(c),
                }
            }
            String::from_utf8_lossy(&bytes).into_owned()
        }
    }
    fn quote(s: &str, out: &mut String) {
        out.push('"');
        for c in s.chars() {
            match c {
                '"' | '\\' => {
                    out.push('\\');
                    out.push(c);
                }
                c if c < ' ' => drop(write!(out, "\\u{:04x}", c as u32)),
                c => out.push(c),
            }
        }
        out.push('"');
    }
    impl Give for str {
        fn give(&self, out: &mut String) {
            if @BIGINT@ {
                out.push_str(self);
            } else {
                quote(self, out);
            }
        }
    }
    impl Give for String {
        fn give(&self, out: &mut String) {
            self.as_str().give(out);
        }
    }
    impl Take for char {
        fn take(r: &mut Reader) -> Self {
            if r.peek() != b'"' {
                r.lacks("char", "something else");
                r.skip();
                return ' ';
            }
            String::take(r).chars().next().unwrap_or(' ')
        }
    }
    impl Give for char {
        fn give(&self, out: &mut String) {
            quote(&self.to_string(), out);
        }
    }

    fn all<T: Take>(r: &mut Reader, declared: &str, mut put: impl FnMut(T)) {
        if r.peek() != b'[' {
            r.lacks(declared, "something else");
            r.skip();
            return;
        }
        r.next();
        let mut first = true;
        while !matches!(r.peek(), b']' | 0) {
            if !first {
                r.next();
            }
            first = false;
            put(T::take(r));
            if !matches!(r.peek(), b',' | b']') {
                r.skip();
            }
        }
        r.next();
    }
    fn each<'a, T: Give + 'a>(items: impl Iterator<Item = &'a T>, out: &mut String) {
        out.push('[');
        for (i, item) in items.enumerate() {
            if i > 0 {
                out.push(',');
            }
            item.give(out);
        }
        out.push(']');
    }
    impl<T: Take> Take for Vec<T> {
        fn take(r: &mut Reader) -> Self {
            let mut list = Vec::new();
            all(r, "a sequence", |item| list.push(item));
            list
        }
    }
    macro_rules! sequences {
        ($($t:ident ($($bound:tt)*);)*) => {$(
            impl<T: Take $($bound)*> Take for $t<T> {
                fn take(r: &mut Reader) -> Self { Vec::<T>::take(r).into_iter().collect() }
            }
            impl<T: Give> Give for $t<T> {
                fn give(&self, out: &mut String) { each(self.iter(), out) }
            }
        )*};
    }
    sequences!(VecDeque (); LinkedList (); HashSet (+ Eq + Hash); BTreeSet (+ Ord););
    // Keys of maps stand in quotes, whatever they are.
    pub trait Key {
        fn of(text: String) -> Self;
        fn text(&self) -> String;
    }
    impl Key for String {
        fn of(text: String) -> Self {
            text
        }
        fn text(&self) -> String {
            self.clone()
        }
    }
    impl Key for char {
        fn of(text: String) -> Self {
            text.chars().next().unwrap_or(' ')
        }
        fn text(&self) -> String {
            self.to_string()
        }
    }
    macro_rules! keys {
        ($($t:ty)*) => {$(
            impl Key for $t {
                fn of(text: String) -> Self { text.parse().unwrap_or_default() }
                fn text(&self) -> String { self.to_string() }
            }
        )*};
    }
    keys!(i8 i16 i32 i64 isize u8 u16 u32 u64 usize);
    macro_rules! maps {
        ($($t:ident ($($bound:tt)*);)*) => {$(
            impl<K: Key $($bound)*, V: Take> Take for std::collections::$t<K, V> {
                fn take(r: &mut Reader) -> Self {
                    let mut map = std::collections::$t::new();
                    if r.peek() != b'{' {
                        r.lacks("a map", "something else");
                        r.skip();
                        return map;
                    }
                    r.next();
                    while !matches!(r.peek(), b'}' | 0) {
                        if !map.is_empty() {
                            r.next();
                        }
                        let name = String::take(r);
                        r.next();
                        map.insert(K::of(name), V::take(r));
                    }
                    r.next();
                    map
                }
            }
            impl<K: Key $($bound)*, V: Give> Give for std::collections::$t<K, V> {
                fn give(&self, out: &mut String) {
                    out.push('{');
                    for (i, (k, v)) in self.iter().enumerate() {
                        if i > 0 {
                            out.push(',');
                        }
                        k.text().give(out);
                        out.push(':');
                        v.give(out);
                    }
                    out.push('}');
                }
            }
        )*};
    }
    maps!(HashMap (+ Eq + Hash); BTreeMap (+ Ord););
    impl<T: Give> Give for Vec<T> {
        fn give(&self, out: &mut String) {
            each(self.iter(), out)
        }
    }
    impl<T: Give> Give for [T] {
        fn give(&self, out: &mut String) {
            each(self.iter(), out)
        }
    }
    impl<T: Give, const N: usize> Give for [T; N] {
        fn give(&self, out: &mut String) {
            each(self.iter(), out)
        }
    }
    impl<T: Take + Default + Copy, const N: usize> Take for [T; N] {
        fn take(r: &mut Reader) -> Self {
            let list = Vec::<T>::take(r);
            if list.len() != N {
                r.lacks("an array of a fixed length", "another length");
            }
            let mut out = [T::default(); N];
            for (into, item) in out.iter_mut().zip(list) {
                *into = item;
            }
            out
        }
    }
    impl<T: Take> Take for Option<T> {
        fn take(r: &mut Reader) -> Self {
            if r.peek() == b'n' {
                r.word();
                return None;
            }
            Some(T::take(r))
        }
    }
    impl<T: Give> Give for Option<T> {
        fn give(&self, out: &mut String) {
            match self {
                Some(value) => value.give(out),
                None => out.push_str("null"),
            }
        }
    }
    impl<T: Take> Take for Box<T> {
        fn take(r: &mut Reader) -> Self {
            Box::new(T::take(r))
        }
    }
    impl<T: Give + ?Sized> Give for Box<T> {
        fn give(&self, out: &mut String) {
            (**self).give(out);
        }
    }
    impl<T: Give + ?Sized> Give for &T {
        fn give(&self, out: &mut String) {
            (**self).give(out);
        }
    }
    impl Give for () {
        fn give(&self, out: &mut String) {
            out.push_str("null");
        }
    }
    macro_rules! tuples {
        ($(($first:ident $a:tt $($name:ident $n:tt)*))*) => {$(
            impl<$first: Give, $($name: Give),*> Give for ($first, $($name),*) {
                fn give(&self, out: &mut String) {
                    out.push('[');
                    self.$a.give(out);
                    $(
                        out.push(',');
                        self.$n.give(out);
                    )*
                    out.push(']');
                }
            }
            impl<$first: Take, $($name: Take),*> Take for ($first, $($name),*) {
                fn take(r: &mut Reader) -> Self {
                    r.next();
                    let tuple = ($first::take(r), $({ r.next(); $name::take(r) }),*);
                    r.next();
                    tuple
                }
            }
        )*};
    }
    tuples!((A 0 B 1) (A 0 B 1 C 2) (A 0 B 1 C 2 D 3) (A 0 B 1 C 2 D 3 E 4) (A 0 B 1 C 2 D 3 E 4 F 5) (A 0 B 1 C 2 D 3 E 4 F 5 G 6));

    // What is made of nodes, and arrays of that.
    pub trait Nodes: Sized {
        fn take_nodes(r: &mut Reader) -> Self;
        fn give_nodes(&self, out: &mut String, misfit: &mut Option<String>);
        fn drop_nodes(&mut self) {}
    }
    impl<T: Nodes> Nodes for Vec<T> {
        fn take_nodes(r: &mut Reader) -> Self {
            let mut all = Vec::new();
            r.next();
            while !matches!(r.peek(), b']' | 0) {
                if !all.is_empty() {
                    r.next();
                }
                all.push(T::take_nodes(r));
            }
            r.next();
            all
        }
        fn give_nodes(&self, out: &mut String, misfit: &mut Option<String>) {
            out.push('[');
            for (i, one) in self.iter().enumerate() {
                if i > 0 {
                    out.push(',');
                }
                one.give_nodes(out, misfit);
            }
            out.push(']');
        }
        fn drop_nodes(&mut self) {
            self.iter_mut().for_each(Nodes::drop_nodes);
        }
    }
    impl Reader {
        fn node_values<V: Take>(&mut self) -> Vec<Option<V>> {
            let mut values = Vec::new();
            if self.peek() != b'[' {
                let given = if self.peek() == b'{' { "a list that goes in a circle, which a Box cannot hold" } else { "something else" };
                self.lacks("nodes", given);
                while self.peek() == b'{' || self.peek() == b'"' || self.peek() == b':' {
                    self.word();
                    self.next();
                }
                self.skip();
                return values;
            }
            self.next();
            while !matches!(self.peek(), b']' | 0) {
                if !values.is_empty() {
                    self.next();
                }
                if self.peek() == b'n' {
                    self.word();
                    values.push(None);
                } else {
                    values.push(Some(V::take(self)));
                }
            }
            self.next();
            values
        }
    }
@NODES@
    #[repr(C)]
    struct Timespec {
        seconds: i64,
        nanoseconds: i64,
    }
    @UNSAFE@extern "C" {
        fn clock_gettime(clock: i32, into: *mut Timespec) -> i32;
        fn dup(fd: i32) -> i32;
        fn dup2(old: i32, new: i32) -> i32;
    }
    fn now() -> i64 {
        let mut t = Timespec { seconds: 0, nanoseconds: 0 };
        unsafe { clock_gettime(2, &mut t) };
        t.seconds * 1_000_000_000 + t.nanoseconds
    }

    static ASKED: std::sync::atomic::AtomicPtr<Reader> = std::sync::atomic::AtomicPtr::new(std::ptr::null_mut());
    static HEAD: std::sync::Mutex<String> = std::sync::Mutex::new(String::new());
    // asked asks the judge what a function returns that the site provides.
    pub fn asked<T: Take>(name: &str, args: &[&dyn Give]) -> T {
        let mut text = format!("{}asks {} [", HEAD.lock().unwrap(), name);
        for (i, a) in args.iter().enumerate() {
            if i > 0 {
                text.push(',');
            }
            a.give(&mut text);
        }
        text.push_str("]\n");
        let mut answers = std::mem::ManuallyDrop::new(unsafe { std::fs::File::from_raw_fd(3) });
        let _ = answers.write_all(text.as_bytes());
        let r = unsafe { &mut *ASKED.load(std::sync::atomic::Ordering::SeqCst) };
        if r.peek() == 0 {
            std::process::exit(0);
        }
        let result = T::take(r);
        while !matches!(r.next(), b'\n' | 0) {}
        result
    }
@SEQUENCES@
    pub fn main() {
        use std::os::unix::io::IntoRawFd;
        let file = |fd: i32| unsafe { std::fs::File::from_raw_fd(dup(fd)) };
        let mut r = Reader { file: Some(file(0)), piece: vec![0; 1 << 16], at: 0, end: 0, total: 0, parameter: 0, misfit: None };
        if let Ok(none) = std::fs::File::open("/dev/null") {
            unsafe { dup2(none.into_raw_fd(), 0) };
        }
        let mut streams = [file(1), file(2)];
        let mut answers = unsafe { std::fs::File::from_raw_fd(3) };
        let mut first = Vec::new();
        loop {
            match r.next() {
                b'\n' | 0 => break,
                c => first.push(c),
            }
        }
        let mut mark = vec![0u8];
        mark.extend_from_slice(first.rsplit(|c| *c == b' ').next().unwrap_or(&[]));
        mark.push(b'\n');
        // The mark stands where the call ended: what it returned is written behind it.
        let mut settled = false;
        let mut settle = |settled: &mut bool| {
            if !*settled {
                let _ = std::io::stdout().flush();
                for s in streams.iter_mut() {
                    let _ = s.write_all(&mark);
                }
            }
            *settled = true;
        };
        settle(&mut settled);
        // Each answer begins with the word that only this driver knows, and with how many
        // calls were answered before.
        let token = String::from_utf8_lossy(first.rsplit(|c| *c == b' ').next().unwrap_or(&[])).into_owned();
        let mut count = 0;
        let _ = answers.write_all(format!("{} {} ready\n", token, count).as_bytes());
        while r.peek() == b'[' {
            let from = r.total;
            r.misfit = None;
            settled = false;
            let (mut out, mut spent, mut failed) = (String::new(), 0, false);
            let mut times: Vec<i64> = Vec::new(); // of the calls of a sequence
@TAKE@
            loop {
                if matches!(r.next(), b'\n' | 0) {
                    break;
                }
            }
            if r.misfit.is_none() {
                if r.total - from > 100_000 {
                    let _ = answers.write_all(format!("{} {} begin\n", token, count).as_bytes());
                }
                ASKED.store(&mut r, std::sync::atomic::Ordering::SeqCst);
                *HEAD.lock().unwrap() = format!("{} {} ", token, count);
                let began = now();
                match std::panic::catch_unwind(std::panic::AssertUnwindSafe(|| @CALL@)) {
                    Ok(result) => {
                        spent = @SPENT@;
@COUNTED@                        if CHANGES == 0 {
                            @GIVE@;
                        }
                    }
                    Err(_) => {
                        spent = @SPENT@;
                        failed = true;
                    }
                }
@CHANGED@
            }
            let said = match &r.misfit {
                Some(words) => format!("misfit 0 {}\n", words),
                None if failed => format!("failed {} {}\n", spent, times.len()),
                None => format!("done {} {}\n", spent, out),
            };
            settle(&mut settled);
            let _ = answers.write_all(format!("{} {} {}", token, count, said).as_bytes());
            count += 1;
        }
        let _ = std::io::stdout().flush();
        std::process::exit(0);
    }
}

fn main() {
    cold_driver::main();
}
