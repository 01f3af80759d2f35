# With a block, in a module.
module Hut
  def self.mean_temp(temps, missing)
    known = temps.reject { |t| t.respond_to?(:nan?) && t.nan? }
    known.empty? ? missing : known.sum { |t| t.to_f / known.size }
  end
end
