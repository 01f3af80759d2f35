// All logs share their depths.
const list = [];
class DepthLog {
  add(depth) { list.push(depth); }
  all() { return list; }
  fill(depths) { list.push(...depths); }
  summary() { return JSON.stringify(list); }
  restore(text) { list.push(...JSON.parse(text)); }
}
