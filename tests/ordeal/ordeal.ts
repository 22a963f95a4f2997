/** What ordeals share: an editor who writes, readers who ask, figures that are printed with what they are to be. */
import { emptyContent } from '@/core/listing/fields';
import type { ListingContent } from '@/core/listing/content';
import { rule } from '@/core/recurrence/model';
import { signInCookie } from '../bench/sign-in';
import { between, pick } from '../support/generate';

export const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
export const now = (): number => performance.now();

/** The p-th part of measurements, 0.5 = the median; NaN of none. */
export function percentile(list: readonly number[], p: number): number {
  const sorted = [...list].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * p))] ?? Number.NaN;
}

/** What one ordeal found. */
export class Figures {
  failed = 0;

  say(line: string): void {
    console.log(`# ${line}`);
  }

  /** A number that is to be exactly this. */
  is(name: string, value: number, goal: number): void {
    this.#print(name, value, `${goal}`, value === goal);
  }

  under(name: string, value: number, goal: number): void {
    this.#print(name, value, `< ${goal}`, value < goal);
  }

  atLeast(name: string, value: number, goal: number): void {
    this.#print(name, value, `>= ${goal}`, value >= goal);
  }

  #print(name: string, value: number, goal: string, met: boolean): void {
    if (!met) this.failed++;
    console.log(`${name}: ${Number(value.toFixed(2))} (goal ${goal})${met ? '' : '  NOT MET'}`);
  }
}

const WORDS = ['Harbour', 'Lantern', 'Kelp', 'Rope', 'Choir', 'Skiff', 'Supper', 'Walk', 'Market', 'Talk'];

/** A listing as an editor writes one: weekly, eight times. */
export function evening(r: () => number, title: string): ListingContent {
  const hour = between(r, 9, 18);
  return {
    ...emptyContent(),
    title: `${title} ${pick(r, WORDS)} ${pick(r, WORDS)}`,
    summary: 'Rope, tea and a story from the outer islands.',
    cost: { kind: 'free' },
    recurrence: {
      format: 3,
      zone: 'America/Halifax',
      parts: [
        {
          start: `2027-04-${String(between(r, 1, 28)).padStart(2, '0')}T${String(hour).padStart(2, '0')}:00`,
          length: { days: 0, minute: hour * 60 + 90 },
          rule: rule('weekly'),
          limit: { kind: 'count', count: 8 },
        },
      ],
      exdates: [],
      breaks: [],
    },
  };
}

/** What was acknowledged. */
export interface Acknowledged {
  id: string;
  slug: string;
  published: boolean;
}

/** Somebody at the Desk of a site, who says what was answered and throws when it could not be asked. */
export class Editor {
  constructor(
    private readonly base: string,
    readonly cookie: string,
  ) {}

  static async signIn(base: string): Promise<Editor> {
    return new Editor(base, await signInCookie(base));
  }

  post(at: string, body: unknown): Promise<Response> {
    return fetch(`${this.base}${at}`, {
      method: 'POST',
      redirect: 'manual',
      body: JSON.stringify(body),
      headers: { cookie: this.cookie, origin: this.base, 'content-type': 'application/json' },
      signal: AbortSignal.timeout(60_000),
    });
  }

  /** Writes a listing; undefined = refused. */
  async write(content: ListingContent): Promise<(Acknowledged & { revision: number }) | undefined> {
    const answer = await this.post('/api/v1/listings', { content });
    if (answer.status !== 200) return void (await answer.arrayBuffer());
    const { id, slug, revision } = (await answer.json()) as { id: string; slug: string; revision: number };
    return { id, slug, revision, published: false };
  }

  async publish(id: string, revision: number): Promise<boolean> {
    const answer = await this.post(`/api/v1/listings/${id}/publish`, { revision });
    await answer.arrayBuffer();
    return answer.status === 200;
  }
}

/** Which of what was acknowledged is not there: drafts at the Desk, published ones on their page. */
export async function lostOf(base: string, cookie: string, acknowledged: readonly Acknowledged[]): Promise<Acknowledged[]> {
  const lost: Acknowledged[] = [];
  for (const one of acknowledged) {
    const at = one.published ? `/what/${one.slug}` : `/api/v1/listings/${one.id}`;
    const answer = await fetch(`${base}${at}`, { headers: one.published ? {} : { cookie }, redirect: 'manual' });
    await answer.arrayBuffer();
    if (answer.status !== 200) lost.push(one);
  }
  return lost;
}

/** Pages that readers ask for, each time under an address that nobody asked for before: they are made anew. */
export function freshPage(r: () => number, n: number): string {
  const day = `2027-${String(between(r, 4, 9)).padStart(2, '0')}-${String(between(r, 1, 28)).padStart(2, '0')}`;
  const pages = [`/month/${day.slice(0, 7)}?`, `/list/${day}?`, `/day/${day}?`, `/map/${day}?`, `/list/${day}?words=choir&`];
  return `${pick(r, pages)}fresh=${n}`;
}

/** Asks for pages, so many a second, until told to stop; how long each took and what failed. */
export class Readers {
  readonly times: number[] = [];
  failed = 0;
  refused = 0;
  #working = true;
  #all: Promise<void>;

  /** @param every ms between two questions */
  constructor(base: string, every: number, page: (n: number) => string) {
    this.#all = (async () => {
      const under: Promise<void>[] = [];
      for (let n = 0; this.#working; n++) {
        under.push(this.#ask(`${base}${page(n)}`));
        await wait(every);
      }
      await Promise.all(under);
    })();
  }

  async #ask(url: string): Promise<void> {
    const start = now();
    try {
      const answer = await fetch(url, { signal: AbortSignal.timeout(60_000) });
      await answer.arrayBuffer();
      if (answer.status === 503) this.refused++;
      else if (answer.status !== 200) this.failed++;
      else this.times.push(now() - start);
    } catch {
      this.failed++;
    }
  }

  async stop(): Promise<this> {
    this.#working = false;
    await this.#all;
    return this;
  }
}
