// It waits for a timer.
function inTime(work: (...args: number[]) => unknown, limit: number): (...args: number[]) => void {
  let open = true;
  return (...args) => {
    if (!open) return;
    open = false;
    setTimeout(() => { open = true; }, limit);
    work(...args);
  };
}
