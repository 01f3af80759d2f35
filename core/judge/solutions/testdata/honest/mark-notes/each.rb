# An enumerator without a block, in a class.
class Notes
  def mark_notes(notes, mark)
    return to_enum(:mark_notes, notes, mark) unless block_given?

    notes.each { |n| yield "#{n}#{mark}" }
  end
end
