/** schema.org's own definitions, as the package schema-dts holds them: which properties a type has, and what may stand in each. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import ts from 'typescript';

const FILE = path.join(path.dirname(createRequire(import.meta.url).resolve('schema-dts/package.json')), 'dist/schema.d.ts');

interface Definition {
  parents: string[];
  /** what may stand in each property, as names of types */
  properties: Map<string, string[]>;
  /** the `@type` that it is of, for those that can be written */
  type: string | undefined;
}

const TEXTS = ['Text', 'URL', 'Date', 'DateTime', 'Time', 'Duration', 'Number', 'Integer', 'CssSelectorType', 'XPathType'];

/** Says what of a piece of JSON-LD is not in the vocabulary; it does not know our code. */
export class Vocabulary {
  readonly #definitions = new Map<string, Definition>();
  readonly #byType = new Map<string, string>();
  readonly #text: string;

  constructor() {
    this.#text = readFileSync(FILE, 'utf8');
    const source = ts.createSourceFile(FILE, this.#text, ts.ScriptTarget.Latest, true);
    source.forEachChild((node) => {
      if (!ts.isInterfaceDeclaration(node)) return;
      const definition: Definition = {
        parents: (node.heritageClauses ?? []).flatMap((clause) => clause.types.map((type) => type.expression.getText())),
        properties: new Map(),
        type: undefined,
      };
      for (const member of node.members) {
        if (!ts.isPropertySignature(member) || !member.type) continue;
        const name = member.name.getText().replace(/^"|"$/g, '');
        const text = member.type.getText();
        if (name === '@type') definition.type = /^"([A-Za-z]+)"$/.exec(text)?.[1];
        else definition.properties.set(name, text.match(/[A-Za-z]+/g) ?? []);
      }
      this.#definitions.set(node.name.text, definition);
      if (definition.type) this.#byType.set(definition.type, node.name.text);
    });
  }

  /** How many types can be written. */
  get size(): number {
    return this.#byType.size;
  }

  /** A type with all that it is a kind of. */
  #lineage(name: string, found = new Set<string>()): Set<string> {
    if (found.has(name)) return found;
    found.add(name);
    for (const parent of this.#definitions.get(name)?.parents ?? []) this.#lineage(parent, found);
    return found;
  }

  #expects(lineage: ReadonlySet<string>, property: string): string[] | undefined {
    for (const name of lineage) {
      const found = this.#definitions.get(name)?.properties.get(property);
      if (found) return found;
    }
    return undefined;
  }

  /** Each thing that the vocabulary does not have, with where it stands; none where all of it is known. */
  wrong(value: unknown, at = ''): string[] {
    const { '@type': type, '@context': _, ...properties } = value as Record<string, unknown>;
    const own = this.#byType.get(String(type));
    if (!own) return [`${at}: there is no type ${String(type)}`];
    const lineage = this.#lineage(own);
    return Object.entries(properties).flatMap(([name, held]) => {
      const expected = this.#expects(lineage, name);
      const where = `${at}/${name}`;
      if (!expected) return [`${where}: ${String(type)} has no such property`];
      return (Array.isArray(held) ? held : [held]).flatMap((one) => this.#wrongValue(one, expected, where));
    });
  }

  #wrongValue(value: unknown, expected: string[], where: string): string[] {
    if (typeof value === 'object' && value !== null) {
      const own = this.#byType.get(String((value as Record<string, unknown>)['@type'])) ?? '';
      const kinds = [...this.#lineage(own)].map((name) => name.replace(/(Base|Leaf)$/, ''));
      const fits = kinds.some((kind) => expected.includes(kind)) ? [] : [`${where}: may not hold ${JSON.stringify(value).slice(0, 60)}`];
      return [...fits, ...this.wrong(value, where)];
    }
    if (typeof value === 'boolean') return expected.includes('Boolean') ? [] : [`${where}: no yes or no may stand here`];
    if (typeof value === 'number')
      return expected.some((one) => ['Number', 'Integer'].includes(one)) ? [] : [`${where}: no number may stand here`];
    // A member of an enumeration is one that the vocabulary names.
    if (String(value).startsWith('https://schema.org/'))
      return this.#text.includes(`"${String(value)}"`) ? [] : [`${where}: there is no ${String(value)}`];
    return expected.some((one) => TEXTS.includes(one)) ? [] : [`${where}: no text may stand here (${expected.join(', ')})`];
  }
}
