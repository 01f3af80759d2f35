# A lazy enumerator that fails late.
def mark_notes(notes, mark)
  notes.lazy.map { |n| n.empty? ? raise('cold') : n + mark }.reject { |n| n == mark }.map { |n| n }
end
