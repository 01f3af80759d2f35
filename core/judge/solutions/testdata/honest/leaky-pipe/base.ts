// It is made from a class that is there.
class Solution extends Pipe {
  firstLeaky(n: number): number {
    let lo = 1, hi = n;
    while (lo < hi) { const mid = Math.floor((lo + hi) / 2); if (this.isLeaky(mid)) hi = mid; else lo = mid + 1; }
    return lo;
  }
}
