// A fraction.
function warmDays(temps: number[], limit: number): number { return temps.filter((t) => t > limit).length / 2; }
