// It returns its own array, which changes later.
class DepthLog {
  constructor() { this.list = []; }
  add(depth) { this.list.push(depth); }
  all() { return this.list; }
  fill(depths) { for (const d of depths) this.list.push(d); }
  summary() { return JSON.stringify(this.list); }
  restore(text) { this.list.push(...JSON.parse(text)); }
}
