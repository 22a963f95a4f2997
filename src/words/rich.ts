/** Messages of which parts are elements: links, names in bold, keys. */

/** Stands for a “<” of what is put into a message, so that nobody's name or words are taken for an element. */
const ESCAPED = '\uE000';
type Given = Record<string, string | number>;

/**
 * The parts of a message in order: `rich(w.seeThePage, {}, { a: (text) => <a href={to}>{text}</a> })` for “See <a>the page</a>.”
 * @param say the message, which is given its parameters here
 * @throws Error where the message names an element that is not given
 */
export function rich<G extends Given, T>(
  say: (given: G) => string,
  given: G,
  elements: Record<string, (text: string) => T>,
): (string | T)[] {
  const safe = Object.fromEntries(
    Object.entries(given).map(([name, value]) => [name, typeof value === 'string' ? value.replaceAll('<', ESCAPED) : value]),
  ) as G;
  const own = (text: string): string => text.replaceAll(ESCAPED, '<');
  const message = say(safe);
  return message.split(/(<\w+>.*?<\/\w+>)/).flatMap((part): (string | T)[] => {
    const [, name, text] = /^<(\w+)>(.*)<\/\1>$/.exec(part) ?? [];
    if (name === undefined || text === undefined) return part ? [own(part)] : [];
    const element = elements[name];
    if (!element) throw new Error(`The message “${message}” has <${name}>, which is not given.`);
    return [element(own(text))];
  });
}
