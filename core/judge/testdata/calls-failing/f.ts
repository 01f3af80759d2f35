
interface Box { x: number }
function deep(n: number): number { return deep(n + 1) + 1; }

export function f(k: number): number {
  if (k === 0) {
    const b: any = null;
    return b.x; // fails here
  }
  if (k === 2) process.exit(0);
  if (k === 3) return deep(0);
  return k;
}
