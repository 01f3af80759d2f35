// Each call puts the alarm off.
type F = (...args: number[]) => void;
function settled(alarm: F, pause: number): F {
  let t: ReturnType<typeof setTimeout> | undefined;
  const f = (...args: number[]) => { clearTimeout(t); t = setTimeout(() => alarm(...args), pause); };
  return Object.assign(f, { cancel: () => clearTimeout(t) });
}
