// It returns pairs.
function byHut(fuel, days, least) {
  return Object.entries(fuel).filter(([, n]) => n >= least).map(([hut, n]) => [hut, n + 3]);
}
