// A vector in the order of use, which is enough for a small radio.
struct BeaconCache {
    room: usize,
    kept: Vec<(i32, String)>,
}

impl BeaconCache {
    fn new(room: i32) -> Self {
        BeaconCache { room: room as usize, kept: Vec::new() }
    }

    fn put(&mut self, beacon: i32, reading: String) {
        self.kept.retain(|(b, _)| *b != beacon);
        self.kept.push((beacon, reading));
        if self.kept.len() > self.room {
            self.kept.remove(0);
        }
    }

    fn get(&mut self, beacon: i32) -> Option<String> {
        let at = self.kept.iter().position(|(b, _)| *b == beacon)?;
        let one = self.kept.remove(at);
        self.kept.push(one.clone());
        Some(one.1)
    }
}
