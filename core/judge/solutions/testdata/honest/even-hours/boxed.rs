pub fn even_hours(n: i32) -> Box<dyn Iterator<Item = i32>> { Box::new((0..n).step_by(2)) }
