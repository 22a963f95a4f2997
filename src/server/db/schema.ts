/**
 * The tables. Ids are UUIDv7 made in code; every table that people edit has a revision. Days are integers since
 * 1970-01-01 and minutes count from midnight, as in the core; instants are timestamptz.
 */
export * from './schema/accounts';
export * from './schema/bulk';
export * from './schema/edits';
export * from './schema/exchange';
export * from './schema/jobs';
export * from './schema/listings';
export * from './schema/pictures';
export * from './schema/places';
export * from './schema/validation';
export * from './schema/site';
