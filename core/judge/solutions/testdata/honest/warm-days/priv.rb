# More parameters than are given, and a private helper.
class Solution
  def warm_days(temps, limit, *) = temps.count { |t| above(t, limit) }
  private
  def above(t, l) = t > l
end
