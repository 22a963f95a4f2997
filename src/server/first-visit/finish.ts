/** Makes a site of the answers: settings, chart, categories, and the account of whoever answered, in one transaction. */
import { englishOf } from '@/core/phrase/language';
import { STARTING_KINDS, type StartingSet } from '@/core/category/starting-sets';
import { tint } from '@/core/colour/colour';
import type { Chart } from '@/core/geo/geo';
import { isMail } from '@/core/validation/links';
import { PASSWORD } from '../accounts/auth';
import type { Auth } from '../accounts/auth';
import { SITE_ACTOR } from '../accounts/roles';
import { createAccount } from '../accounts/write';
import { makeFallback, saveCategory } from '../categories/write';
import type { Db } from '../db/client';
import { setting } from '../db/schema';
import { type FieldError, invalidFields, Problem } from '../problem';
import { DEFAULT_SETTINGS, type SiteSettings } from '../site/settings';
import { saveSettings } from '../site/write';
import type { YearMarks } from '../holidays/year-marks';
import type { World } from '../world/world';
import { firstVisitWords, serverWords } from '@/words/desk';
import { FIRST_STEPS } from './first-steps';
import { type Look, lookAt } from './follows';
import { holidaysThere } from './holidays';
import { type Answers, forgetAnswers, isSetUp } from './state';

const w = firstVisitWords.wrong;
const accounts = serverWords.accountsWrite;

interface NewSite {
  db: Db;
  auth: Auth;
  world: World;
  yearMarks: Pick<YearMarks, 'regionsOf'>;
}

/** All that is missing or wrong, each at its field. */
function wrongIn(answers: Answers, { place, towns }: Look, password: string): FieldError[] {
  const missing = (field: string, message: string, is: boolean): FieldError[] => (is ? [{ field, message }] : []);
  const noPlace = answers.place === 'pin' ? w.pin() : answers.town && !towns.length ? w.noTown({ town: answers.town }) : w.town();
  return [
    ...missing('name', w.name(), !answers.name),
    ...missing('town', noPlace, !place),
    ...missing('whoName', accounts.theNameIsMissing(), !answers.whoName),
    ...missing('mail', accounts.theMailAddressNeeds(), !isMail(answers.mail)),
    ...missing('password', accounts.aPasswordHasAt({ min: PASSWORD.min }), password.length < PASSWORD.min),
    ...missing('password', accounts.aPasswordHasAtMost({ max: PASSWORD.max }), password.length > PASSWORD.max),
    ...missing('passphrase', serverWords.siteWrite.thePassphraseIsMissing(), answers.senders === 'passphrase' && !answers.passphrase),
  ];
}

/**
 * Sets a site up that nobody has begun with.
 * @throws Problem with every field that needs mending; `conflict` where somebody else was faster
 */
export async function setUpSite({ db, auth, world, yearMarks }: NewSite, answers: Answers, password: string): Promise<void> {
  const look = await lookAt(world, answers);
  const wrong = wrongIn(answers, look, password);
  const { place, settled } = look;
  if (wrong.length || !place) throw invalidFields(wrong);
  const chart = await world.chartAround(place);
  const { holidayCountry, holidayRegion } = await holidaysThere(yearMarks, look);
  const holidays = answers.holidays === 'none' ? {} : { holidayCountry, holidayRegion };
  const settings: SiteSettings = {
    ...DEFAULT_SETTINGS,
    ...settled,
    ...holidays,
    english: englishOf(settled.country),
    name: answers.name,
    lat: place.lat,
    lng: place.lng,
    senders: answers.senders,
    passphrase: answers.senders === 'passphrase' ? answers.passphrase : '',
  };
  await db.transaction(async (tx) => {
    if (await isSetUp(tx)) throw new Problem('conflict', w.faster());
    await writeSite(tx, settings, chart, answers.kinds);
    const by = { name: answers.whoName, email: answers.mail, role: 'coordinator' as const, password };
    await createAccount(tx, auth, by, SITE_ACTOR);
    await forgetAnswers(tx);
  });
}

async function writeSite(tx: Db, settings: SiteSettings, chart: Chart, kinds: StartingSet): Promise<void> {
  // Of two at once on a server one meets the other's row here, is run again, and is told.
  await saveSettings(tx, settings, SITE_ACTOR);
  await tx.insert(setting).values([
    { key: 'chart', value: { format: 2 as const, bounds: chart.bounds, features: chart.features } },
    { key: FIRST_STEPS, value: { format: 1 as const, hidden: false } },
  ]);
  const names: Record<string, () => string> = firstVisitWords.kinds[kinds];
  const nameOf = (key: string): string => names[key]?.() ?? key;
  let last = '';
  for (const { key, shape, ink, icon, children } of STARTING_KINDS[kinds]) {
    const parentId = await saveCategory(tx, null, { name: nameOf(key), shape, ink, icon, parentId: null }, SITE_ACTOR);
    for (const [i, child] of children.entries())
      await saveCategory(tx, null, { name: nameOf(child), shape, ink: tint(ink, i), parentId, twice: true }, SITE_ACTOR);
    last = parentId;
  }
  await makeFallback(tx, last);
}
