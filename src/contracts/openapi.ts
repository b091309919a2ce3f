import { z } from 'zod';
import { ProblemReply } from './responses';

/** A JSON body or answer by its schema, or a body of another media type. */
export type Payload = { readonly name: string; readonly schema: z.ZodType } | { readonly type: string };

/** The part of an endpoint that the document describes. */
export interface Operation {
  readonly method: 'GET' | 'POST';
  readonly path: string;
  readonly access: string;
  readonly key?: string;
  readonly summary: string;
  readonly query?: z.ZodObject;
  readonly body: Payload | null;
  readonly answer: Payload;
  readonly status: number;
  readonly example: unknown;
}

const PROBLEMS: Payload = { name: 'ProblemReply', schema: ProblemReply };

/** A media type without a schema of ours: text by its characters, everything else by its bytes. */
const fileSchema = (type: string): object =>
  type.startsWith('text/') || type.endsWith('ndjson')
    ? { type: 'string' }
    : { type: 'string', contentMediaType: type, contentEncoding: 'binary' };

const contentOf = (payload: Payload, example?: unknown): object =>
  'schema' in payload
    ? {
        'application/json': {
          schema: { $ref: `#/components/schemas/${payload.name}` },
          ...(example === undefined || example === null ? {} : { example }),
        },
      }
    : { [payload.type]: { schema: fileSchema(payload.type) } };

const schemaOf = (shape: z.ZodType, io: 'input' | 'output'): object => {
  const schema = z.toJSONSchema(shape, { io, unrepresentable: 'any', reused: 'inline' });
  return Object.fromEntries(Object.entries(schema).filter(([key]) => key !== '$schema'));
};

/** Parameters of a query: those with a default, or optional ones, may be left out. */
const queryParameters = (query: z.ZodObject | undefined): readonly object[] => {
  if (!query) return [];
  const { properties = {}, required = [] } = z.toJSONSchema(query, { io: 'input', unrepresentable: 'any' });
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema,
  }));
};

const parametersOf = ({ path, query }: Operation): readonly object[] => [
  ...[...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  })),
  ...queryParameters(query),
];

const operationId = ({ method, path }: Operation): string =>
  `${method.toLowerCase()}${path.replace(/[^A-Za-z0-9]+(.)?/g, (_, c: string | undefined) => (c ?? '').toUpperCase())}`;

const accessOf = ({ access, key }: Operation): string =>
  `${access === 'anybody' ? 'Needs no sign-in.' : `Needs the role "${access}" where people sign in.`}${key === undefined ? '' : ` A program key "${key}" also opens it.`}`;

const operationOf = (o: Operation): object => ({
  summary: o.summary,
  description: accessOf(o),
  operationId: operationId(o),
  parameters: parametersOf(o),
  ...(o.body === null ? {} : { requestBody: { required: true, content: contentOf(o.body, o.example) } }),
  responses: {
    [o.status]: { description: 'Done', content: contentOf(o.answer) },
    default: { description: 'Refused, with a sentence', content: contentOf(PROBLEMS) },
  },
});

/** The named schemas of all operations: request bodies by their input, answers by their output. */
const componentsOf = (operations: readonly Operation[]): Readonly<Record<string, object>> => {
  const bodies = operations.flatMap((o) => (o.body && 'schema' in o.body ? [o.body] : []));
  const answers = [PROBLEMS, ...operations.map((o) => o.answer)].flatMap((a) => ('schema' in a ? [a] : []));
  return Object.fromEntries([
    ...answers.map((a) => [a.name, schemaOf(a.schema, 'output')] as const),
    ...bodies.map((b) => [b.name, schemaOf(b.schema, 'input')] as const),
  ]);
};

/** Returns the operations as an OpenAPI 3.1 document. Source: OpenAPI Specification 3.1.1; JSON Schema 2020-12. */
export const openApi = (operations: readonly Operation[]): object => ({
  openapi: '3.1.1',
  info: {
    title: 'Moorwind',
    version: '1',
    description:
      'Each action has a clientId that the sender makes: the same clientId sent again is the same action. Quantities are SI, moments UTC. A refusal says in a sentence what is wrong, and where. Lists have pages: send the `next` of one page as `after` of the next page.',
    license: { name: 'MIT', identifier: 'MIT' },
  },
  servers: [{ url: '/' }],
  security: [{ session: [] }, { key: [] }, {}],
  paths: Object.fromEntries(
    [...new Set(operations.map((o) => o.path))].map((path) => [
      path,
      Object.fromEntries(
        operations.filter((o) => o.path === path).map((o) => [o.method.toLowerCase(), operationOf(o)]),
      ),
    ]),
  ),
  components: {
    schemas: componentsOf(operations),
    securitySchemes: {
      session: { type: 'apiKey', in: 'cookie', name: 'mw_session' },
      key: { type: 'http', scheme: 'bearer' },
    },
  },
});
