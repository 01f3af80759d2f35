// It calls at the end of the while.
function inTime(work, limit) {
  let open = true;
  return (...args) => {
    if (!open) return;
    open = false;
    setTimeout(() => { open = true; work(...args); }, limit);
  };
}
