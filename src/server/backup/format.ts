/** What a backup says of itself. The file is an archive (docs/formats.md) with every table of the database beside the document. */
import { z } from 'zod';

/** The name of this part within the ZIP file. */
export const BACKUP_HEAD = 'backup.json';
/** The folder of the tables' rows: `tables/<name>.jsonl`, a row a line. */
export const tableFile = (table: string): string => `tables/${table}.jsonl`;

/** The head of a backup. */
export const backupHead = z.object({
  kind: z.literal('plain-almanac-backup'),
  format: z.literal(1),
  madeAt: z.iso.datetime({ offset: true }),
  /** the migrations that its tables have, in order */
  migrations: z.array(z.object({ hash: z.string(), at: z.number() })).max(10_000),
  /** every table, with how many rows it has */
  tables: z.record(z.string().regex(/^[a-z_]{1,63}$/), z.number().int().min(0)),
  /** where each picture's bytes are, by its hash */
  pictures: z.record(z.string(), z.string()),
});
/** The head of a backup. */
export type BackupHead = z.infer<typeof backupHead>;
