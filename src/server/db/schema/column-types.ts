/** Kinds of columns that several tables have. */
import { customType, timestamp } from 'drizzle-orm/pg-core';

/** A moment, with its zone. */
export const at = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });
/** Bytes of a file. */
export const bytes = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' });
/** The number of a transaction, as text; only the database compares them. */
export const transactionId = customType<{ data: string }>({ dataType: () => 'xid8' });
