# One too many.
def lazy_days(n) = (0..n).lazy.map { |i| 2 * i + 1 }.each_entry
