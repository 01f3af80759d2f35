// Borrowed texts, and a helper in a module of its own.
mod text {
    pub fn joined(a: &str, b: char) -> String { format!("{}{}", a, b) }
}
pub fn mark_notes(notes: &[String], mark: char) -> Vec<String> {
    notes.iter().map(|n| text::joined(n, mark)).collect()
}
