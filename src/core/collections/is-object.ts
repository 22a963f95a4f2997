/** Values of unknown shape, as JSON gives them. */
export type Loose = Record<string, unknown>;

/** Is this an object with keys: no list, not null? */
export const isObject = (value: unknown): value is Loose => typeof value === 'object' && value !== null && !Array.isArray(value);
