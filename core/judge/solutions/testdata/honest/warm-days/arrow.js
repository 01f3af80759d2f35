// An arrow with a default, exported by name at the end.
'use strict';
const warmDays = (temps, limit, from = 0, ...rest) =>
  from === temps.length ? 0 : (temps[from] > limit ? 1 : 0) + warmDays(temps, limit, from + 1);
export { warmDays };
