// Blanks are taken off.
fn mark_notes(notes: Vec<String>, mark: char) -> Vec<String> {
    notes.iter().map(|n| format!("{}{}", n.trim(), mark)).collect()
}
