// Wrong: always goes on to both sides, however cold it is there.
function warmestTrail(main) {
  let best = -Infinity;
  const down = (camp) => {
    if (!camp) return 0;
    const left = down(camp.left), right = down(camp.right);
    best = Math.max(best, camp.val + left + right);
    return camp.val + Math.max(left, right);
  };
  down(main);
  return best;
}
