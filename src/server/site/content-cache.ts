/** Answers of the database that hold while the content stays as it is. Each site has one: nothing of it is the process's. */

/** So many answers are kept at once; the one that was asked for longest ago goes first. */
const MOST_ANSWERS = 50;

/** Where what was found out is asked for. */
export interface Asking {
  of: <T>(key: string, ask: () => Promise<T>) => Promise<T>;
  /** was this asked before? From now on it was */
  comesBack: (key: string) => boolean;
}

/** What was found out in one state of the content. */
export class Answers implements Asking {
  private readonly known = new Map<string, Promise<unknown>>();
  /** those that have come */
  private readonly here = new WeakSet<Promise<unknown>>();
  /** what was asked once: whole halls are read when somebody comes back, not while everything changes all the time */
  private readonly once = new Set<string>();

  constructor(readonly revision: string) {}

  /** The answer to a question, asked once; a failure is not kept, so the next one asks again. */
  of<T>(key: string, ask: () => Promise<T>): Promise<T> {
    return this.ofUsable(key, ask, () => true);
  }

  private ofUsable<T>(key: string, ask: () => Promise<T>, usable: (answer: Promise<unknown>) => boolean): Promise<T> {
    const known = this.known.get(key) as Promise<T> | undefined;
    const before = known && usable(known) ? known : undefined;
    const answer = before ?? ask();
    // What was asked for last stands last.
    this.known.delete(key);
    this.known.set(key, answer);
    if (!before)
      answer.then(
        () => this.here.add(answer),
        () => this.known.get(key) === answer && this.known.delete(key),
      );
    const [oldest] = this.known.keys();
    if (this.known.size > MOST_ANSWERS && oldest !== undefined) this.known.delete(oldest);
    return answer;
  }

  /**
   * The same for whoever holds the database in a transaction. An answer that somebody outside still waits for comes when the database is free
   * again: waiting for it here, both would wait for ever. It is asked anew.
   */
  inTransaction(): Asking {
    const own = new WeakSet<Promise<unknown>>();
    return {
      of: (key, ask) =>
        this.ofUsable(
          key,
          () => {
            const answer = ask();
            own.add(answer);
            return answer;
          },
          (answer) => this.here.has(answer) || own.has(answer),
        ),
      comesBack: (key) => this.comesBack(key),
    };
  }

  comesBack(key: string): boolean {
    if (this.once.has(key)) return true;
    this.once.add(key);
    return false;
  }
}

/** A site's answers for its present state, and what outlives changes. */
export class ContentCache {
  private answers: Answers | undefined;
  private readersAnswers: Answers | undefined;
  private readonly lasting = new Map<string, object>();

  /**
   * @param revision names the state of the content: the same while nothing changes
   * @param seen names the state of what readers may see, which drafts and mails leave as it is
   */
  constructor(
    private readonly revision: () => string,
    private readonly seen: () => string = revision,
  ) {}

  /** What is known of the content as it is now. */
  now(): Answers {
    const revision = this.revision();
    if (this.answers?.revision !== revision) this.answers = new Answers(revision);
    return this.answers;
  }

  /** What is known of what readers may see, and of the tables that the database notes with it: kinds, tags, venues, organizers. */
  ofReaders(): Answers {
    const revision = this.seen();
    if (this.readersAnswers?.revision !== revision) this.readersAnswers = new Answers(revision);
    return this.readersAnswers;
  }

  /** What outlives changes and keeps itself up to date, made when it is first asked for. */
  keep<T extends object>(name: string, make: () => T): T {
    const there = this.lasting.get(name) as T | undefined;
    if (there) return there;
    const made = make();
    this.lasting.set(name, made);
    return made;
  }
}

/** The answer to a question; without a state of the content, which is being changed right now, it is asked each time. */
export function askOnce<T>(answers: Asking | undefined, key: string, ask: () => Promise<T>): Promise<T> {
  return answers ? answers.of(key, ask) : ask();
}
