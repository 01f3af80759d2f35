pub fn even_hours(n: i32) -> impl Iterator<Item = i32> { (0..n).step_by(2) }
