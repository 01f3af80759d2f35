// A class with private members, a static block and getters.
class Counter {
  static #made = 0;
  #limit;
  static { Counter.#made = 0; }
  constructor(limit) { this.#limit = limit; Counter.#made++; }
  #above(t) { return t > this.#limit; }
  get limit() { return this.#limit; }
  count(temps) { return temps.filter((t) => this.#above(t)).length; }
}

class Solution {
  #counter = null;
  warmDays(temps, limit) {
    this.#counter = new Counter(limit);
    return this.#counter.count(temps);
  }
}
