# It returns its own array, which changes later.
class DepthLog
  def initialize
    @list = []
  end

  def add(depth)
    @list << depth
  end

  def all = @list

  def fill(depths)
    @list.concat(depths)
  end

  def summary
    @list.join(' ')
  end

  def restore(text)
    @list.concat(text.split.map(&:to_i))
  end
end
