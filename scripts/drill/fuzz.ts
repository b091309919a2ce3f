import Sqlite from 'better-sqlite3';
import { z } from 'zod';
import { ROUTES } from '@/server/http/routes';

/** The part of JSON Schema that the fuzz reads. */
interface Shape {
  readonly type?: string;
  readonly const?: unknown;
  readonly enum?: readonly unknown[];
  readonly anyOf?: readonly Shape[];
  readonly oneOf?: readonly Shape[];
  readonly properties?: Readonly<Record<string, Shape>>;
  readonly items?: Shape | false;
  readonly prefixItems?: readonly Shape[];
  readonly minimum?: number;
  readonly maximum?: number;
  readonly maxLength?: number;
  readonly $ref?: string;
}

type Chance = () => number;

const NUMBERS = [0, 1, -1, 1e-9, 1e-300, 5e-324, 1e9, 1e300, -1e300, 0.001, 24, 25, 366, 2 ** 31, 2 ** 53, 0.5];
const DAYS = ['2026-11-20', '2026-02-30', '0001-01-01', '9999-12-31', '1990-01-01', '2099-12-31', '', 'yesterday'];
const TEXTS = [
  '',
  ' ',
  'oak',
  "'; drop table machine; --",
  '=HYPERLINK("http://x.invalid")',
  '<script>alert(1)</script>',
  '\u0000',
  '\ud800',
  '\u202e',
  'x'.repeat(3000),
  '14.2',
  '1e400',
  '-0',
  'NaN',
  '１２',
  'lead paint',
  'asbestos',
];

interface Around {
  readonly chance: Chance;
  readonly field: string;
  readonly defs: Readonly<Record<string, Shape>>;
}

/** A value of a shape: mostly sound, now and then at its edge or past it. */
const valueOf = (shape: Shape, around: Around): unknown => {
  const { chance, field, defs } = around;
  const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(chance() * list.length)];
  if (chance() < 0.02) return pick([null, [], {}, 'x', -1, true, [[[[]]]], 1e308]);
  if (shape.$ref) return valueOf(defs[shape.$ref.split('/').at(-1) ?? ''] ?? {}, around);
  const one = shape.anyOf ?? shape.oneOf;
  if (one) return valueOf(pick(one) ?? {}, around);
  if ('const' in shape) return shape.const;
  if (shape.enum) return pick(shape.enum);
  if (field === 'clientId') return `fuzz-${Math.floor(chance() * 1e15)}`;
  if (field === 'by' || field === 'initials') return pick(['MK', 'TO', 'MK', '', 'x'.repeat(40)]);
  switch (shape.type) {
    case 'object':
      return Object.fromEntries(
        Object.entries(shape.properties ?? {}).flatMap(([name, inner]) =>
          chance() < 0.02 ? [] : [[name, valueOf(inner, { ...around, field: name })]],
        ),
      );
    case 'array': {
      const length = shape.prefixItems?.length ?? Math.floor(chance() * (chance() < 0.03 ? 400 : 5));
      return Array.from({ length }, (_, i) => valueOf(shape.prefixItems?.[i] ?? (shape.items || {}), around));
    }
    case 'string':
      if (/^(day|on|since|from|to|.*On|arrivesOn)$/.test(field)) return pick(DAYS);
      if (/At$/.test(field)) return pick(['2026-11-20T10:00:00.000Z', '9999-12-31T23:59:59.999Z', 'now', '']);
      if (field === 'typed') return pick(['14.2', '92', '-3', '0', '1e9', '0.0001', '', 'x', '12,5', '99999999999999']);
      if (field === 'unit')
        return pick(['L/s', 'Pa', 'kPa', 'inH2O', 'mm', 'm', 'm/s', 'kg', 'degC', '%', 'furlong', '']);
      return pick(TEXTS);
    case 'integer':
      return chance() < 0.8 ? Math.floor(chance() * 80) : pick(NUMBERS);
    case 'number':
      return chance() < 0.5
        ? (shape.minimum ?? 0) + chance() * Math.min(10, (shape.maximum ?? 10) - (shape.minimum ?? 0))
        : pick(NUMBERS);
    case 'boolean':
      return chance() < 0.5;
    default:
      return null;
  }
};

export interface Endpoint {
  readonly path: string;
  readonly schema: z.ZodType;
}

/** Every endpoint of the route table that takes a JSON body, with its schema. */
export const endpoints = (): readonly Endpoint[] =>
  ROUTES.flatMap(({ path, body }) => (body && 'schema' in body ? [{ path, schema: body.schema }] : []));

export interface FuzzReport {
  readonly bodies: number;
  readonly endpoints: number;
  readonly taken: number;
  readonly server_errors: number;
  readonly hangs: number;
  /** Pages that did not answer 200 afterwards. */
  readonly pages_down: number;
  readonly worst_ms: number;
}

const HANGS_MS = 10_000;
const ODD_BODIES = [
  '',
  '{',
  '[]',
  'null',
  '"x"',
  '{"clientId":{}}',
  `${'['.repeat(5000)}${']'.repeat(5000)}`,
  '\u0000',
  '{"a":1e999}',
];

/** Pages that do not answer 200. */
const pagesDown = async (url: string, file: string, say: (line: string) => void): Promise<number> => {
  let down = 0;
  const pages = [
    '/',
    '/round',
    '/plan',
    '/stock',
    '/dusts',
    '/people',
    '/audit',
    '/machines',
    '/outbox',
    '/api/plan/calendar.ics',
    '/stock/orders.csv',
  ];
  const again = new Sqlite(file, { readonly: true });
  const now = again.prepare('select tag from machine').pluck().all() as string[];
  again.close();
  const ofMachines = now
    .slice(0, 30)
    .flatMap((t) => ['', '/file', '/plan', '/path', '/find', '/measure'].map((p) => `/m/${encodeURIComponent(t)}${p}`));
  for (const page of [...pages, ...ofMachines]) {
    const { status } = await fetch(`${url}${page}`);
    if (status !== 200) {
      down += 1;
      say(`${status} ${page}`);
    }
  }
  return down;
};

/** Sends bodies to every endpoint, most of them nearly sound; then asks for every page. */
export const fuzz = async (
  url: string,
  file: string,
  { bodies, chance, say }: { bodies: number; chance: Chance; say: (line: string) => void },
): Promise<FuzzReport> => {
  const all = endpoints();
  const shapes = all.map(
    (e) =>
      z.toJSONSchema(e.schema, { unrepresentable: 'any', io: 'input' }) as Shape & { $defs?: Record<string, Shape> },
  );
  const db = new Sqlite(file, { readonly: true });
  const tags = db.prepare('select tag from machine').pluck().all() as string[];
  db.close();
  let [taken, errors, hangs, worst] = [0, 0, 0, 0];
  const send = async (i: number): Promise<void> => {
    const endpoint = all[i % all.length];
    const shape = shapes[i % all.length];
    if (!endpoint || !shape) return;
    const tag = chance() < 0.95 ? (tags[Math.floor(chance() * tags.length)] ?? '') : encodeURIComponent('../x y');
    const path = endpoint.path.replace('{tag}', tag).replace('{id}', String(Math.floor(chance() * 9)));
    const body =
      chance() < 0.05
        ? (ODD_BODIES[Math.floor(chance() * ODD_BODIES.length)] ?? '')
        : JSON.stringify(valueOf(shape, { chance, field: '', defs: shape.$defs ?? {} }));
    const from = performance.now();
    try {
      const answer = await fetch(`${url}${path}`, {
        method: chance() < 0.99 ? 'POST' : 'PUT',
        headers: { 'content-type': chance() < 0.99 ? 'application/json' : 'text/plain' },
        body,
        signal: AbortSignal.timeout(HANGS_MS),
      });
      const text = await answer.text();
      if (answer.status < 300) taken += 1;
      if (answer.status >= 500) {
        errors += 1;
        say(`${answer.status} ${path} ${body.slice(0, 400)} -> ${text.slice(0, 200)}`);
      }
    } catch (error) {
      hangs += 1;
      say(`no answer ${path} ${body.slice(0, 400)}: ${String(error)}`);
    }
    worst = Math.max(worst, performance.now() - from);
  };
  for (let i = 0; i < bodies; i += 4) await Promise.all([send(i), send(i + 1), send(i + 2), send(i + 3)]);
  const down = await pagesDown(url, file, say);
  return {
    bodies,
    endpoints: all.length,
    taken,
    server_errors: errors,
    hangs,
    pages_down: down,
    worst_ms: Math.round(worst),
  };
};
