// Each call puts the alarm off.
var settled = function (alarm, pause) {
  let t;
  const f = function (...args) { clearTimeout(t); t = setTimeout(() => alarm(...args), pause); };
  f.cancel = () => clearTimeout(t);
  return f;
};
