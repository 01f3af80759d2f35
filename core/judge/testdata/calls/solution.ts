export function rows(grid: number[][]): number[][] { return grid.reverse(); }

export const greet = (words: string[], sign: string): string[] => words.map((w) => w + sign);

export function measure(n: number | bigint, x: number, cap: number | null): number | bigint | null {
  if (cap === null) return Object.is(x, -0) ? null : n;
  return n < cap ? n : cap;
}

export class Station {
  static extremes(temps: Array<number>, warm: boolean): { least: number, most: number, mean: number } {
    return { least: Math.min(...temps), most: warm ? Math.max(...temps) : 0, mean: temps.reduce((a, b) => a + b) / temps.length };
  }
}

export function echo(n: any): any { return n; }
