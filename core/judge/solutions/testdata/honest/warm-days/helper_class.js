// A helper class above has a method of the name and needs an argument.
class Day {
  constructor(temp) { if (temp === undefined) throw new Error('no temp'); this.temp = temp; }
  warmDays(temps, limit) { return this.temp > limit ? 1 : 0; }
}
module.exports = class Solution {
  warmDays(temps, limit) {
    let n = 0;
    for (const t of temps) n += new Day(t).warmDays([], limit);
    return n;
  }
};
