# It goes down where both are hashes.
def shared_keys(one, other)
  one.each_with_object({}) do |(key, a), kept|
    next unless other.key?(key)

    b = other[key]
    if a.is_a?(Hash) && b.is_a?(Hash) then kept[key] = shared_keys(a, b)
    elsif a == b then kept[key] = a
    end
  end
end
