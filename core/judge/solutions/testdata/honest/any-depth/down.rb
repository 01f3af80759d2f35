# Arrays and hashes hold others.
def deepest_in(crate)
  case crate
  when Hash then deepest_in(crate.values)
  when Array then 1 + (crate.map { |c| deepest_in(c) }.max || 0)
  else 0
  end
end
