# It notes where it was.
def reach(camp)
  seen = {}.compare_by_identity
  open = [camp].compact
  until open.empty?
    c = open.pop
    next if seen[c]

    seen[c] = true
    open.concat(c.neighbors)
  end
  seen.size
end
