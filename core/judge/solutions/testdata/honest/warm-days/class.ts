// A class with access words, and a helper that needs an argument above.
abstract class Base { protected abstract above(t: number): boolean; }
class Day extends Base {
  constructor(private readonly limit: number) { super(); }
  protected above(t: number): boolean { return t > this.limit; }
  public warmDays(temps: number[], more: number): number { return temps.filter((t) => this.above(t - more)).length; }
}
export class Solution {
  #calls = 0;
  warmDays(temps: number[], limit: number): number { this.#calls++; return new Day(limit).warmDays(temps, 0); }
}
