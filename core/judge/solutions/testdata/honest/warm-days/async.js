// Asynchronous, in a default export.
export default async function warmDays(temps, limit) {
  await new Promise((resolve) => setTimeout(resolve, 1));
  return temps.reduce((n, t) => n + (t > limit), 0);
}
