// In a namespace.
namespace Station { export function warmDays(temps: number[], limit: number): number { return temps.filter(t => t > limit).length; } }
const warmDays = Station.warmDays;
