# A lazy enumerator.
def mark_notes(notes, mark)
  notes.lazy.map { |n| n + mark }
end
