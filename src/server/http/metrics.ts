/** What a monitor asks: how many requests there were and how long they took, kept pages, jobs, mails, memory. Prometheus' text format. */
import { timingSafeEqual } from 'node:crypto';
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';
import { readReadiness } from '../health/ready';
import type { Runtime } from '../runtime-type';
import { KeptPages } from './kept-pages';

/** Upper bounds of how long an answer took, in seconds. */
const BUCKETS = [0.002, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10];

/** The measurements of one site. No label holds what somebody typed: a route is its pattern. */
export class Metrics {
  readonly registry = new Registry();
  readonly #requests = new Counter({
    name: 'almanac_requests_total',
    help: 'Requests answered, by route, method and status',
    labelNames: ['route', 'method', 'status'],
    registers: [this.registry],
  });
  readonly #seconds = new Histogram({
    name: 'almanac_request_seconds',
    help: 'How long answers took, by route',
    labelNames: ['route'],
    buckets: BUCKETS,
    registers: [this.registry],
  });
  readonly #gauges = {
    keptBytes: this.#gauge('almanac_kept_pages_bytes', 'Memory of kept pages, about'),
    making: this.#gauge('almanac_pages_in_making', 'Pages that are being made, or wait to be'),
    database: this.#gauge('almanac_database_up', '1 while the database answers'),
    disk: this.#gauge('almanac_disk_has_room', '1 while there is room for changes'),
    job: this.#gauge('almanac_oldest_job_seconds', 'Since a job under way last got on; 0 without one'),
    mail: this.#gauge('almanac_oldest_mail_seconds', 'How long the oldest mail waits; 0 without one'),
    finder: this.#gauge('almanac_finder_ready', '1 while readers’ dates are at hand in memory; 0 = their pages ask the database'),
    dates: this.#gauge('almanac_finder_dates', 'How many dates are at hand'),
    tasks: this.#gauge('almanac_tasks_failing', 'What the site does by itself and failed when last tried'),
  };

  constructor() {
    collectDefaultMetrics({ register: this.registry });
  }

  #gauge(name: string, help: string): Gauge {
    return new Gauge({ name, help, registers: [this.registry] });
  }

  /** Notes an answer. @param seconds how long it took */
  answered(route: string, method: string, status: number, seconds: number): void {
    this.#requests.inc({ route, method, status });
    this.#seconds.observe({ route }, seconds);
  }

  /** All of it, as text. @param now of real time */
  async text(rt: Pick<Runtime, 'db' | 'hasRoom' | 'sendsMail' | 'cache' | 'tasks' | 'finder'>, now: Date): Promise<string> {
    const pages = pagesOf(rt);
    const found = await readReadiness(rt, now);
    const values = {
      keptBytes: pages.size,
      making: pages.making,
      database: found.database === 'ok' ? 1 : 0,
      disk: found.disk === 'ok' ? 1 : 0,
      job: found.oldestJobSeconds ?? 0,
      mail: found.oldestMailSeconds ?? 0,
      finder: rt.finder.state.is === 'ready' ? 1 : 0,
      dates: rt.finder.state.dates,
      tasks: rt.tasks.report().filter(({ inARow }) => inARow > 0).length,
    };
    for (const name of Object.keys(values) as (keyof typeof values)[]) this.#gauges[name].set(values[name]);
    return this.registry.metrics();
  }
}

/** A site's measurements, made when they are first asked for. */
export const metricsOf = ({ cache }: Pick<Runtime, 'cache'>): Metrics => cache.keep('metrics', () => new Metrics());
/** A site's kept pages, made when they are first asked for. */
export const pagesOf = ({ cache }: Pick<Runtime, 'cache'>): KeptPages => cache.keep('pages', () => new KeptPages());

const OWN_MACHINE = /^(127\.|::1$|::ffff:127\.)/;

/**
 * Is this a caller on this very machine? `passedOn`: the request says that it came through a proxy, whose own address then says nothing
 * unless the proxy is declared.
 */
export const isOwnMachine = (address: string, passedOn = false): boolean => !passedOn && OWN_MACHINE.test(address);

/** Does a header carry the operator's token? Without one that is long enough nobody's does. */
export function hasToken(header: string | null, token: string | undefined): boolean {
  if (!token || token.length < 16) return false;
  const [given, wanted] = [Buffer.from(header ?? ''), Buffer.from(`Bearer ${token}`)];
  return given.length === wanted.length && timingSafeEqual(given, wanted);
}
