# A helper class above has a method of the name and needs an argument.
class Day
  def initialize(temp)
    @temp = temp
  end

  def warm_days(_temps, limit)
    @temp > limit ? 1 : 0
  end
end

class Solution
  def warm_days(temps, limit)
    temps.sum { |t| Day.new(t).warm_days([], limit) }
  end
end
