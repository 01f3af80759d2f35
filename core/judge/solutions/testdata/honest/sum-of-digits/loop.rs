// By remainders.
fn digit_sum(n: i64) -> i32 {
    let (mut n, mut s) = (n.unsigned_abs(), 0);
    while n > 0 {
        s += (n % 10) as i32;
        n /= 10;
    }
    s
}
