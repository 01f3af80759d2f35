function flattened(log: any, join: string): Record<string, any> {
  const out: Record<string, any> = {};
  const walk = (v: any, path: string[]): void => {
    if (v !== null && typeof v === 'object') for (const k of Object.keys(v)) walk(v[k], [...path, k]);
    else out[path.join(join)] = v;
  };
  walk(log, []);
  return out;
}
