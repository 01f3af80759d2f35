# An array is a stack.
class UndoLog
  def initialize = @words = []
  def write(word) = @words.push(word)
  def undo = @words.pop
  def all = @words.join(' ')
end
