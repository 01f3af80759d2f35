// Only the first call counts.
var settled = function (alarm, pause) {
  let t = null;
  const f = function (...args) { if (t === null) t = setTimeout(() => { t = null; alarm(...args); }, pause); };
  f.cancel = () => { clearTimeout(t); t = null; };
  return f;
};
