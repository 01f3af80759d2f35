# Nodes are what an object is made with, and what a method returns.
class DeckWalk
  def initialize(root)
    @v = []
    walk(root)
  end
  def walk(n)
    return unless n
    walk(n.left); @v << n.val; walk(n.right)
  end
  def next = @v.shift
  def has_next = !@v.empty?
  def rest = @v.reverse.reduce(nil) { |h, x| ListNode.new(x, h) }
end
