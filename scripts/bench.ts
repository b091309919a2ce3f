// npm run bench: the measuring core and the trend query, as ratios within one run.
import { flowTest } from '../tests/support/readings';
import { readings as padReadings, testBody } from '../tests/support/bodies';
import { NOW } from '../tests/support/database';
import { seedDemo } from '../demo/seed';
import { seeded } from '../demo/random';
import { parseTestEntry } from '@/core/measure/test-entry';
import { reduceTest } from '@/core/measure/reduce-test';
import type { TraversePlan } from '@/core/measure/traverse';
import { NO_USE } from '@/core/record/records';
import { openMigrated } from '@/server/db/connect';
import { insertTest, loadTests } from '@/server/repositories/tests';
import { loadBench } from '@/server/services/measuring/bench';
import { loadTrend } from '@/server/services/measuring/trend';
import { callsPerSecond, report } from './bench-report';

const SEED = 11;
const TESTS = 5000;
const random = seeded(SEED);

const plan: TraversePlan = { shape: 'round', diameterM: 0.125, pointsPerDiameter: 10, diameters: 3 };
const noisy = (n: number, around: number) => Array.from({ length: n }, () => around * (1 + 0.01 * random.normal()));
const traverse = flowTest(noisy(60, 20), { method: 'anemometerTraverse', detail: { kind: 'traverse', plan } });
const plain = flowTest(noisy(4, 0.03));

const traversesPerS = callsPerSecond(() => reduceTest(traverse));
const seriesPerS = callsPerSecond(() => reduceTest(plain));

const db = await openMigrated(':memory:');
await seedDemo(db, { now: NOW, seed: SEED });
const context = { db, now: () => NOW };
const first = (await loadBench(context, 'CR-02')).bench;
if (!first) throw new Error('no CR-02');
const { machine } = first.status;
const began = Date.parse(machine.inServiceOn);
const step = (Date.parse(NOW) - began) / (TESTS + 1);
await db.transaction().execute(async (tx) => {
  for (let i = 0; i < TESTS; i += 1) {
    const typed = noisy(3, 40).map((v) => v.toFixed(1));
    const parsed = parseTestEntry(testBody({ readings: padReadings('L/s', ...typed) }), {
      altitudeM: 4,
      instrument: null,
    });
    if (!parsed.ok) throw new Error('bench entry');
    const at = new Date(began + step * (i + 1)).toISOString();
    const common = { machineId: machine.id, performedAt: at, recordedAt: at, by: 'MK', note: '', parsed: parsed.value };
    await insertTest(tx, {
      ...common,
      isBaseline: false,
      bagState: 'asFound',
      afterChangeId: null,
      configuration: '',
      use: NO_USE,
      supersedes: null,
    });
  }
});

const timed = async (work: () => Promise<unknown>, rounds = 5): Promise<number> => {
  await work();
  const start = performance.now();
  for (let i = 0; i < rounds; i += 1) await work();
  return (performance.now() - start) / rounds;
};

const key = { method: 'flowMeter', place: 'hoseEnd', stageId: null } as const;
const rawMs = await timed(async () => {
  await db.selectFrom('airflow_test').selectAll().where('machine_id', '=', machine.id).execute();
  await db
    .selectFrom('test_reading as r')
    .innerJoin('airflow_test as t', 't.id', 'r.test_id')
    .selectAll('r')
    .where('t.machine_id', '=', machine.id)
    .execute();
});
const testsMs = await timed(() => loadTests(db, machine.id));
const loaded = { ...first, tests: await loadTests(db, machine.id) };
const points = loadTrend(loaded, key).points.length;
if (points < TESTS) throw new Error(`the trend has ${points} points`);
const trendMs = testsMs + (await timed(() => Promise.resolve(loadTrend(loaded, key))));
await db.destroy();

report({
  name: 'measure',
  seed: SEED,
  figures: [
    { id: 'measure.traverse60_per_s', value: traversesPerS, unit: '1/s', goal: 'shown, no goal' },
    {
      id: 'measure.traverse60_over_series4',
      value: seriesPerS / traversesPerS,
      unit: '1',
      goal: 'under 15: the price of 60 points against 4',
    },
    { id: 'measure.trend5000_points', value: points, unit: '1', goal: `at least ${TESTS}` },
    { id: 'measure.trend5000_ms', value: trendMs, unit: 'ms', goal: 'shown, no goal' },
    {
      id: 'measure.trend5000_over_raw_rows',
      value: trendMs / rawMs,
      unit: '1',
      goal: 'under 10: parsing, reducing and judging against reading the bare rows',
    },
  ],
});
