# A struct.
Corners = Struct.new(:least, :total, :row, :warm)
def corners(grid)
  flat = grid.flatten
  Corners.new(flat.min, flat.sum, grid.max_by(&:sum) || [], flat.any?(&:positive?))
end
