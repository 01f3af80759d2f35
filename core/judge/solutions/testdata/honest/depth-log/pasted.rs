// It borrows what it is given, and fails in the language's own way.
struct DepthLog {
    list: Vec<i32>,
}

impl DepthLog {
    fn new() -> Self {
        DepthLog { list: Vec::new() }
    }

    fn add(&mut self, depth: i32) {
        self.list.push(depth);
    }

    fn all(&self) -> Vec<i32> {
        self.list.clone()
    }

    fn fill(&mut self, depths: &[i32]) {
        self.list.extend_from_slice(depths);
    }

    fn summary(&self) -> String {
        self.list.iter().map(|d| d.to_string()).collect::<Vec<_>>().join(" ")
    }

    fn restore(&mut self, text: String) -> Result<(), std::num::ParseIntError> {
        for part in text.split_whitespace() {
            self.list.push(part.parse()?);
        }
        Ok(())
    }
}
