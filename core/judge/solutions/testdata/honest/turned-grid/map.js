// It maps.
function turnedGrid(grid) { return grid.length ? grid[0].map((_, j) => grid.map((row) => row[j]).reverse()) : []; }
