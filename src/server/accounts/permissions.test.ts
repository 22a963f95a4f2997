/** The matrix of who may do what with a listing, and that every write and read of one asks it. */
import { readFileSync } from 'node:fs';
import { eq } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, type Places, seedPlaces } from '../../../tests/support/db';
import { STAGES, type Stage } from '@/core/listing/content';
import type { Db } from '../db/client';
import { listing, user } from '../db/schema';
import { whyNot } from '../bulk/plan';
import { Problem } from '../problem';
import { mergeListings } from '../listings/merge';
import { setTimes } from '../listings/publication-times';
import { knownTo, readListing } from '../listings/read';
import { changeSlug, createListing, moveToStage, publishListing, saveListing } from '../listings/write';
import { sendForReview } from '../moderation/write';
import { actionOf, LISTING_ACTIONS, type ListingAction, type Owned, whyRefused } from './permissions';
import type { Actor } from './roles';

const NAN: Actor = { id: 'nan', name: 'Nan Tarbert', role: 'contributor' };
const RUE: Actor = { id: 'rue', name: 'Rue Dunlin', role: 'contributor' };
const READER: Actor = { id: null, name: 'somebody', role: 'reader' };
const LATER = new Date('2027-06-01T12:00:00Z');

/** A listing of Nan's at each stage, and one that is published and whose changes go out by themselves. */
const KINDS: (Owned & { called: string })[] = [
  ...STAGES.map((stage) => ({ ownerId: 'nan', stage, publishAt: stage === 'scheduled' ? LATER : null, called: stage })),
  { ownerId: 'nan', stage: 'published', publishAt: LATER, called: 'published, changes set to go out' },
];

/** The matrix as docs/security.md has it. */
function matrix(): string {
  const cell = (action: ListingAction, kind: Owned): string =>
    ({ others: 'no', 'needs-editor': 'no', yes: 'yes' })[whyRefused(NAN, action, kind) ?? 'yes'];
  const head = `| own listing | ${LISTING_ACTIONS.join(' | ')} |\n| --- |${' --- |'.repeat(LISTING_ACTIONS.length)}\n`;
  return head + KINDS.map((kind) => `| ${kind.called} | ${LISTING_ACTIONS.map((action) => cell(action, kind)).join(' | ')} |`).join('\n');
}

/** A table without the blanks that its columns are made even with. */
const bare = (table: string): string => table.replace(/-+/g, '-').replace(/\s+/g, ' ');

describe('who may do what with a listing', () => {
  it('stands in docs/security.md as it is', () => expect(bare(readFileSync('docs/security.md', 'utf8'))).toContain(bare(matrix())));
  it('lets editors and coordinators do everything, and nobody else anything with what is not theirs', () => {
    for (const action of LISTING_ACTIONS)
      for (const kind of KINDS) {
        expect(whyRefused({ id: 'ivo', name: 'Ivo', role: 'editor' }, action, kind)).toBeUndefined();
        expect(whyRefused({ id: 'maud', name: 'Maud', role: 'coordinator' }, action, kind)).toBeUndefined();
        for (const other of [RUE, READER, { ...NAN, id: null }]) expect(whyRefused(other, action, kind)).toBe('others');
        expect(whyRefused(NAN, action, { ...kind, ownerId: null })).toBe('others');
      }
  });
  it('leaves what readers have, or will have by itself, to editors', () => {
    for (const kind of KINDS.filter(({ stage, publishAt }) => stage === 'published' || stage === 'scheduled' || publishAt))
      for (const action of ['publish', 'schedule', 'take-down', 'readdress', 'merge'] as const)
        expect(whyRefused(NAN, action, kind)).toBe('needs-editor');
  });
});

describe('every write and read of a listing', () => {
  let db: Db;
  let places: Places;
  beforeAll(async () => {
    db = await freshDb();
    places = await seedPlaces(db);
    for (const { id, name } of [NAN, RUE])
      await db.insert(user).values({ id: id as string, name, email: `${id}@almanac.example`, role: 'contributor' });
  });

  async function made(kind: Owned): Promise<{ id: string; revision: number }> {
    const row = await inTx(db, (tx) => createListing(tx, choir(places, { title: 'Net mending' }), change()));
    if (kind.stage === 'published') await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
    const [set] = await db
      .update(listing)
      .set({ ownerId: kind.ownerId, stage: kind.stage, publishAt: kind.publishAt })
      .where(eq(listing.id, row.id))
      .returning();
    return { id: row.id, revision: set?.revision ?? 0 };
  }

  /** Each way to a listing, with the action that it is. */
  const WAYS: {
    name: string;
    action: (kind: Owned) => ListingAction;
    run: (tx: Db, one: { id: string; revision: number }, by: Actor) => Promise<unknown>;
  }[] = [
    { name: 'reading', action: () => 'see', run: (tx, { id }, by) => readListing(tx, id, by) },
    {
      name: 'saving',
      action: () => 'save',
      run: (tx, one, by) => saveListing(tx, { ...one, content: choir(places, { title: 'Nets' }) }, change(by)),
    },
    { name: 'publishing', action: () => 'publish', run: (tx, { id, revision }, by) => publishListing(tx, id, revision, change(by)) },
    {
      name: 'setting times',
      action: () => 'schedule',
      run: (tx, { id, revision }, by) => setTimes(tx, id, { revision, publishAt: '2027-05-01T10:00', withdrawAt: null }, change(by)),
    },
    ...(['draft', 'withdrawn', 'binned'] as const).map((stage) => ({
      name: `giving the stage ${stage}`,
      action: (kind: Owned) => actionOf(stage, kind),
      run: (tx: Db, { id }: { id: string }, by: Actor) => moveToStage(tx, id, stage, change(by)),
    })),
    {
      name: 'changing the address',
      action: () => 'readdress',
      run: (tx, { id }, by) => changeSlug(tx, id, `nets-${id.slice(-6)}`, change(by)),
    },
    {
      name: 'merging',
      action: () => 'merge',
      run: async (tx, one, by) => {
        const into = await createListing(tx, choir(places, { title: 'The other' }), change(by));
        return mergeListings(tx, one, into.id, change(by));
      },
    },
    {
      name: 'sending for review',
      action: () => 'send',
      run: (tx, { id, revision }, by) => sendForReview(tx, id, revision, '', change(by)),
    },
  ];

  for (const { name, action, run } of WAYS)
    it(`${name} asks the matrix`, async () => {
      for (const kind of KINDS)
        for (const by of [NAN, RUE]) {
          const one = await made(kind);
          const before = (await db.select().from(listing).where(eq(listing.id, one.id)))[0];
          const why = whyRefused(by, action(kind), kind);
          const caught = await inTx(db, (tx) => run(tx, one, by)).then(
            () => undefined,
            (error: unknown) => error,
          );
          const label = `${name}, ${kind.called}, by ${by.name}`;
          if (why) {
            expect(caught, label).toBeInstanceOf(Problem);
            expect(['refused', 'missing'], label).toContain((caught as Problem).kind);
            expect((await db.select().from(listing).where(eq(listing.id, one.id)))[0], label).toEqual(before);
          } else if (caught !== undefined) {
            // What a stage does not allow to anybody is said as such, never as a matter of who asks.
            expect(caught, label).toBeInstanceOf(Problem);
            expect((caught as Problem).kind, label).not.toBe('refused');
          }
        }
    });

  it('says of many at once what it says of one', async () => {
    for (const kind of KINDS) {
      const one = await made(kind);
      const [row] = await db.select().from(listing).where(eq(listing.id, one.id));
      for (const [doing, action] of [
        ['bin', actionOf('binned', kind)],
        ['withdraw', actionOf('withdrawn', kind)],
        ['publish', 'publish'],
      ] as const)
        if (whyRefused(NAN, action, kind))
          expect(whyNot(row, { kind: doing }, change(NAN), 0), `${doing} ${kind.called}`).toMatch(/editor/);
      expect(whyNot(row, { kind: 'headline', on: true }, change(RUE), 0)).toMatch(/somebody else/);
    }
  });

  it('tells contributors of what readers see and of their own alone', async () => {
    const stages: Stage[] = ['draft', 'in-review', 'published'];
    const ids = await Promise.all(stages.map(async (stage) => (await made({ ownerId: 'nan', stage, publishAt: null })).id));
    expect([...(await knownTo(db, RUE, ids))]).toEqual([ids[2]]);
    expect((await knownTo(db, NAN, ids)).size).toBe(3);
    expect((await knownTo(db, EDITOR, ids)).size).toBe(3);
  });
});
