// Overload signatures, an enum, a generic and private members.
enum Kind { Warm, Cold }
interface Reading<T> { value: T; kind: Kind }
function read<T extends number>(value: T, limit: number): Reading<T> {
  return { value, kind: value > limit ? Kind.Warm : Kind.Cold };
}
function warmDays(temps: number[], limit: number): number;
function warmDays(temps: readonly number[], limit: number | bigint): number;
function warmDays(temps: any, limit: any): number {
  return temps.map((t: number) => read(t, Number(limit))).filter((r: Reading<number>) => r.kind === Kind.Warm).length;
}
