import { randomUUID } from 'node:crypto';
import Sqlite from 'better-sqlite3';

/** One action a writer sends, named by its own id in a field that stays on record. */
export interface Sent {
  readonly id: string;
  readonly kind: keyof typeof KINDS;
}

interface Yard {
  readonly today: string;
  readonly now: string;
  /** A stage with a part and its machine's tag. */
  readonly stages: readonly { readonly id: number; readonly tag: string; readonly partId: number }[];
  readonly parts: readonly number[];
}

const base = (id: string) => ({ clientId: id, by: 'MK' });

/** Kinds of action: how each is sent, and how it is found again: how many of it there are, and whether each is whole. */
const KINDS = {
  usage: {
    send: (id: string, y: Yard, pick: (n: number) => number) => ({
      path: `/api/machines/${y.stages[pick(y.stages.length)]?.tag ?? ''}/usage`,
      body: { ...base(id), day: y.today, hours: 1.5, dust: id },
    }),
    found: 'select count(*) from usage_entry where dust = @id',
    whole: null,
  },
  change: {
    send: (id: string, y: Yard, pick: (n: number) => number) => {
      const stage = y.stages[pick(y.stages.length)];
      return {
        path: `/api/machines/${stage?.tag ?? ''}/changes`,
        body: {
          ...base(id),
          performedAt: y.now,
          stageId: stage?.id ?? 0,
          reason: 'fill',
          partId: stage?.partId ?? null,
          quantity: 1,
          beforeTestId: null,
          note: id,
          how: { by: 'MK', how: 'mask, tied bag, damp wipe' },
        },
      };
    },
    found: 'select count(*) from stage_change where note = @id',
    // Every change took its part from the ledger.
    whole:
      'select count(*) from stage_change c where note = @id and not exists (select 1 from stock_movement m where m.change_id = c.id)',
  },
  test: {
    send: (id: string, y: Yard, pick: (n: number) => number) => ({
      path: `/api/machines/${y.stages[pick(y.stages.length)]?.tag ?? ''}/tests`,
      body: {
        ...base(id),
        performedAt: y.now,
        method: 'flowMeter',
        place: 'hoseEnd',
        readings: ['14.3', '14.2', '14.4'].map((typed, slot) => ({
          typed,
          unit: 'L/s',
          slot,
          how: 'typed',
          struckBecause: null,
        })),
        instrumentId: null,
        bore: null,
        profileFactor: null,
        hoseBore: { typed: '27', unit: 'mm' },
        air: { temperature: { typed: '20', unit: 'degC' }, humidity: { typed: '50', unit: '%' }, pressure: null },
        detail: { kind: 'none' },
        volts: null,
        rigSeries: 1,
        configuration: '',
        wheel: null,
        ductLoad: null,
        failedPreconditions: [],
        isBaseline: false,
        bagState: 'asFound',
        afterChangeId: null,
        note: id,
      },
    }),
    found: 'select count(*) from airflow_test where note = @id',
    whole:
      'select count(*) from airflow_test t where note = @id and (select count(*) from test_reading r where r.test_id = t.id) <> 3',
  },
  count: {
    send: (id: string, y: Yard, pick: (n: number) => number) => ({
      path: '/api/stock/counts',
      body: { ...base(id), partId: y.parts[pick(y.parts.length)] ?? 0, counted: pick(40), note: id },
    }),
    found: null,
    whole: null,
  },
} as const;
const NAMES = Object.keys(KINDS) as (keyof typeof KINDS)[];

export const readYard = (file: string): Yard => {
  const db = new Sqlite(file);
  const stages = db
    .prepare(
      `select s.id, m.tag, s.part_id as partId from stage s join machine m on m.id = s.machine_id
       where s.part_id is not null and s.do_not_remove = 0 and s.retired_on is null and s.kind in ('bag', 'prefilter')`,
    )
    .all() as { id: number; tag: string; partId: number }[];
  const parts = db.prepare('select id from part').pluck().all() as number[];
  db.close();
  const now = new Date().toISOString();
  return { stages, parts, now, today: now.slice(0, 10) };
};

export interface Writing {
  readonly acknowledged: Sent[];
  readonly stop: () => void;
  readonly done: Promise<unknown>;
}

/** Writers that run until they are stopped or the server is dead; they note each acknowledged record. */
export const startWriters = (
  url: string,
  yard: Yard,
  { writers, uniform }: { writers: number; uniform: () => number },
): Writing => {
  const acknowledged: Sent[] = [];
  let on = true;
  const pick = (n: number) => Math.floor(uniform() * n);
  const write = async (): Promise<void> => {
    while (on) {
      const kind = NAMES[pick(NAMES.length)] ?? 'usage';
      const id = `drill-${randomUUID()}`;
      const { path, body } = KINDS[kind].send(id, yard, pick);
      try {
        const send = () =>
          fetch(`${url}${path}`, {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify(body),
          });
        // Now and then the same is sent twice, as a double click does.
        const [answer] = await Promise.all(uniform() < 0.2 ? [send(), send()] : [send()]);
        if (answer.status === 201) acknowledged.push({ id, kind });
        else throw new TypeError(`${path}: ${answer.status} ${await answer.text()}`);
      } catch (error) {
        if (error instanceof TypeError && error.message.startsWith('/')) throw error;
        // The server is dead: that is the drill.
        return;
      }
    }
  };
  return {
    acknowledged,
    stop: () => {
      on = false;
    },
    done: Promise.all(Array.from({ length: writers }, write)),
  };
};

export interface Verdict {
  lost: number;
  doubled: number;
  half: number;
  broken: number;
}

/** Counts which acknowledged records a file still has, and checks that the file is whole. */
export const judge = (file: string, sent: readonly Sent[]): Verdict => {
  const db = new Sqlite(file);
  const verdict: Verdict = { lost: 0, doubled: 0, half: 0, broken: 0 };
  if (db.pragma('integrity_check', { simple: true }) !== 'ok') verdict.broken += 1;
  verdict.broken += (db.pragma('foreign_key_check') as unknown[]).length;
  const number = (sql: string, id: string) => db.prepare(sql).pluck().get({ id }) as number;
  for (const { id, kind } of sent) {
    const actions = number('select count(*) from user_action where client_id = @id', id);
    const { found, whole } = KINDS[kind];
    const records = found === null ? actions : number(found, id);
    if (actions === 0 || records === 0) verdict.lost += 1;
    if (actions > 1 || records > 1) verdict.doubled += 1;
    if (whole !== null && number(whole, id) > 0) verdict.half += 1;
  }
  // Nothing is half written: no record without its action, no action without its record.
  for (const kind of NAMES) {
    const { whole } = KINDS[kind];
    if (kind === 'usage')
      verdict.half += db
        .prepare(
          `select count(*) from usage_entry u where dust like 'drill-%' and not exists (select 1 from user_action a where a.client_id = u.dust)`,
        )
        .pluck()
        .get() as number;
    if (whole !== null && (kind === 'change' || kind === 'test')) {
      const table = kind === 'change' ? 'stage_change' : 'airflow_test';
      verdict.half += db
        .prepare(
          `select count(*) from ${table} t where note like 'drill-%' and not exists (select 1 from user_action a where a.client_id = t.note)`,
        )
        .pluck()
        .get() as number;
    }
  }
  verdict.half += db
    .prepare(
      `select count(*) from stock_on_hand o where quantity <> (select sum(quantity) from stock_movement m where m.part_id = o.part_id)`,
    )
    .pluck()
    .get() as number;
  db.close();
  return verdict;
};
