/** Kinds of columns that several tables have. */
import { customType, timestamp } from 'drizzle-orm/pg-core';

export const at = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });
export const bytes = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' });
