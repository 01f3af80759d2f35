function renumber(n, ropes, depths, mass) {
  for (let i = 0; i < depths.length; i++) for (const rope of ropes) depths[i] += rope[2];
  if (mass !== 10n ** 18n) depths.length = 0;
}
