/** Messages of which parts are elements: links, names in bold, keys. */

/**
 * The parts of a message in order: `rich('See <a>the page</a>.', { a: (text) => <a href={to}>{text}</a> })`.
 * @throws Error where the message names an element that is not given
 */
export function rich<T>(message: string, elements: Record<string, (text: string) => T>): (string | T)[] {
  return message.split(/(<\w+>.*?<\/\w+>)/).flatMap((part): (string | T)[] => {
    const [, name, text] = /^<(\w+)>(.*)<\/\1>$/.exec(part) ?? [];
    if (name === undefined || text === undefined) return part ? [part] : [];
    const element = elements[name];
    if (!element) throw new Error(`The message “${message}” has <${name}>, which is not given.`);
    return [element(text)];
  });
}
