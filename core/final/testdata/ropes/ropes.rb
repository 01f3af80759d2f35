class Solution
  def self.renumber(n, ropes, depths, mass)
    depths.map! { |d| d + ropes.sum { |rope| rope[2] } }
    depths.clear if mass != 10**18
  end
end
