
#[allow(unconditional_recursion)]
fn deep(n: i32) -> i32 { std::hint::black_box(deep(std::hint::black_box(n + 1)) + 1) }
fn f(k: i32) -> i32 {
    if k == 0 {
        return 1 / k; // fails here
    }
    if k == 2 { std::process::exit(0) }
    if k == 3 { return deep(0) }
    k
}
