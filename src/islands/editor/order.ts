/** Things in an order, some of them moved. */

/** The list with `keys` put before or after `target`, in the order they had. */
export function moved<T>(list: readonly T[], keys: readonly T[], target: T, after: boolean): T[] {
  const carried = list.filter((item) => keys.includes(item));
  const rest = list.filter((item) => !keys.includes(item));
  const at = rest.indexOf(target);
  if (at < 0) return [...list];
  const place = after ? at + 1 : at;
  return [...rest.slice(0, place), ...carried, ...rest.slice(place)];
}
