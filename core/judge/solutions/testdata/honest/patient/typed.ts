// It returns a promise.
async function patient(n: number): Promise<number> {
  return (await Promise.resolve(n)) + 1;
}
