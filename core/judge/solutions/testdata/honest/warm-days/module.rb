# A module function and a refinement.
module Warm
  refine Integer do
    def above?(limit) = self > limit
  end
end
using Warm

module Station
  module_function

  def warm_days(temps, limit)
    temps.count { |t| t.above?(limit) }
  end
end
