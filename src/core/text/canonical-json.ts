/** JSON with its keys in order, for comparing: a database gives them back in an order of its own. */
export function canonical(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonical).join()}]`;
  if (value === null || typeof value !== 'object') return JSON.stringify(value) ?? 'null';
  const entries = Object.entries(value).filter(([, v]) => v !== undefined);
  return `{${entries
    .map(([k, v]) => `${k}:${canonical(v)}`)
    .sort()
    .join()}}`;
}
