/** The interface for other programs as an OpenAPI 3.1 document, made from the shapes and the collections that it answers by. */
import { z } from 'zod';
import { LANGUAGES } from '@/core/phrase/language';
import { FILTER_NAMES } from '@/core/filters/filters';
import { COLLECTIONS, type Collection } from './collections';
import { FILTER_MEANINGS, LIMIT } from './query';
import * as shapes from './shapes';
import { OPEN_DATA } from './telling';

type Json = Record<string, unknown>;

const capital = (name: string): string => name.charAt(0).toUpperCase() + name.slice(1);

/** Every shape by its name: those of the collections, their pages, and what they are made of. */
function componentsOf(): Json {
  const registry = z.registry<{ id: string }>();
  const add = (shape: z.ZodType): void => {
    const { id } = z.globalRegistry.get(shape) ?? {};
    if (id && !registry.has(shape)) registry.add(shape, { id });
  };
  for (const shape of [...shapes.PARTS, shapes.openProblem]) add(shape);
  for (const [name, { shape }] of Object.entries(COLLECTIONS)) {
    add(shape);
    add(shapes.pageOf(shape, `${capital(name)}Page`));
  }
  const { schemas } = z.toJSONSchema(registry, { uri: (id) => `#/components/schemas/${id}`, target: 'draft-2020-12' });
  const bare = ({ $schema: _, $id: __, ...schema }: Json): Json => schema;
  return Object.fromEntries(Object.entries(schemas).map(([id, schema]) => [id, bare(schema as Json)]));
}

const parameter = (name: string, description: string, schema: Json, more: Json = {}): Json => ({
  name,
  in: 'query',
  required: false,
  description,
  schema,
  ...more,
});

/** Several values of one name stand in one, with commas between them, or each by itself. */
const filterParameters = (): Json[] =>
  FILTER_NAMES.map((name) => {
    const { says, among } = FILTER_MEANINGS[name];
    return parameter(name, among ? `${says} Among: ${among.join(', ')}.` : says, { type: 'string' });
  });

const pagingParameters = (): Json[] => [
  parameter('limit', 'About how many at once.', { type: 'integer', minimum: 1, maximum: LIMIT.most, default: LIMIT.usual }),
  parameter('cursor', 'Where the page begins: as `next` of the page before says.', { type: 'string' }),
];

const languageParameter = (): Json =>
  parameter('language', 'In which of the site’s languages; its own where nothing is said.', { type: 'string', enum: [...LANGUAGES] });

const answer = (description: string, schema: string): Json => ({
  description,
  headers: { ETag: { description: 'Send it back as If-None-Match: 304 says that nothing changed.', schema: { type: 'string' } } },
  content: { 'application/json': { schema: { $ref: `#/components/schemas/${schema}` } } },
});
const problem = (description: string): Json => ({
  description,
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
});

function pathsOf(name: string, { says, filtered, shape, one }: Collection): Json {
  const { id = '' } = z.globalRegistry.get(shape) ?? {};
  const unchanged = { description: 'It is as it was.' };
  const page = {
    operationId: `list${capital(name)}`,
    summary: says,
    parameters: [...(filtered ? filterParameters() : []), ...pagingParameters(), languageParameter()],
    responses: {
      200: answer('A page of them.', `${capital(name)}Page`),
      304: unchanged,
      422: problem('Something in the question is not understood: which, and what would be right.'),
      503: problem('The site has too much to do: Retry-After says when to come back.'),
    },
  };
  if (!one) return { [`/${name}`]: { get: page } };
  const item = {
    operationId: `read${id}`,
    summary: `One by its slug.`,
    parameters: [{ name: 'slug', in: 'path', required: true, schema: { type: 'string' } }, languageParameter()],
    responses: { 200: answer('It.', id), 304: unchanged, 404: problem('There is none of that slug.'), 422: page.responses[422] },
  };
  return { [`/${name}`]: { get: page }, [`/${name}/{slug}`]: { get: item } };
}

/** The document for a site at an address. */
export function openApiDocument(site: { name: string; url: string; version: string }): Json {
  return {
    openapi: '3.1.1',
    info: {
      title: site.name,
      version: site.version,
      description:
        'What the calendar’s pages show, for other programs. Nobody signs in; every origin may read. Within v1 no field is taken out or changes its meaning; new ones may come.',
    },
    servers: [{ url: `${site.url}${OPEN_DATA}` }],
    paths: Object.assign({}, ...Object.entries(COLLECTIONS).map(([name, collection]) => pathsOf(name, collection))) as Json,
    components: { schemas: componentsOf() },
  };
}
