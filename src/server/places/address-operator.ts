/** What the command line does with files of addresses. */
import { z } from 'zod';
import { ADDRESS_FIELDS } from '@/core/geo/address-rows';
import type { Actor } from '../accounts/roles';
import { read } from '../problem';
import type { Runtime } from '../runtime-type';
import type { AddedAddresses, KeptAddresses } from './address-book';

const adding = z.object({
  path: z.string().min(1).max(4000),
  columns: z.partialRecord(z.enum(ADDRESS_FIELDS), z.string().min(1).max(200)).default({}),
  credit: z.string().trim().max(300).default(''),
});
const removing = z.object({ name: z.string().min(1).max(400) });

type Site = Pick<Runtime, 'addressBook' | 'settings'>;

/** Takes a file of this machine in. */
export const addAddresses = ({ addressBook, settings }: Site, sent: unknown, by: Actor): Promise<AddedAddresses> =>
  addressBook.add(read(adding, sent), settings(), by, new Date());

/** Takes a file's addresses away. */
export const removeAddresses = ({ addressBook }: Site, sent: unknown, by: Actor): Promise<KeptAddresses> =>
  addressBook.remove(read(removing, sent).name, by);
