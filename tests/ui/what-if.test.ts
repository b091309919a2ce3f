import { beforeAll, describe, expect, it } from 'vitest';
import type { PathView } from '@/core/calibrate/path-view';
import { pressureProfile } from '@/core/path/pressure-profile';
import { placeOf } from '@/ui/air-path/staircase-picture';
import { blockFactorOf, handleOf } from '@/core/path/handle';
import {
  FARTHEST,
  loadOfPull,
  pullAt,
  startWhatIf,
  stateOfWhatIf,
  type WhatIf,
  type WhatIfAction,
  whatIfReducer,
} from '@/ui/air-path/what-if';
import { airPathOfBench } from '@/server/services/measuring/air-path';
import { loadBench } from '@/server/services/measuring/bench';
import type { AirPathRequest } from '@/contracts/air-path-messages';
import { answerAirPath } from '@/workers/answer-air-path';
import { openAirPath, type WorkerLike } from '@/workers/air-path-client';
import { demoContext } from '../support/database';

let view: PathView;
beforeAll(async () => {
  const { bench } = await loadBench(await demoContext(), 'CR-04');
  if (!bench) throw new Error('no CR-04');
  ({ view } = airPathOfBench(bench));
});

const at = (name: string) => view.model.stages.findIndex((s) => s.name === name);
const solve = (s: WhatIf) => {
  const solved = pressureProfile({ model: view.model, parameters: view.parameters, state: stateOfWhatIf(s, view) });
  if (!solved.ok) throw new Error('unsolved');
  return solved.value;
};
const run = (...actions: readonly WhatIfAction[]) => actions.reduce(whatIfReducer(view), startWhatIf(view));

describe('what if', () => {
  it('starts exactly where the machine stands today, at the filter that costs most', () => {
    const s = startWhatIf(view);
    expect(solve(s).toolFlowM3s).toBeCloseTo(view.now?.toolFlowM3s ?? 0, 9);
    expect(view.model.stages[s.selected]?.name).toBe('fleece bag');
  });

  it('each handle does what it says to the flow', () => {
    const now = view.now?.toolFlowM3s ?? 0;
    const flow = (a: WhatIfAction) => solve(run(a)).toolFlowM3s;
    expect(flow({ type: 'pull', position: at('fleece bag'), to: 0 })).toBeGreaterThan(now);
    expect(flow({ type: 'pull', position: at('fleece bag'), to: 0.95 })).toBeLessThan(0.6 * now);
    expect(flow({ type: 'pull', position: at('hose'), to: 0.8 })).toBeLessThan(0.8 * now);
    expect(flow({ type: 'remove', position: at('main filter'), out: true })).toBeGreaterThan(now);
    expect(flow({ type: 'leak', node: at('fleece bag'), areaMm2: 200 })).toBeLessThan(now);
    expect(flow({ type: 'hose', hose: { boreM: 0.036, lengthM: 4 } })).toBeGreaterThan(now);
    expect(flow({ type: 'volts', volts: 190 })).toBeLessThan(0.95 * now);
    expect(flow({ type: 'supply', share: 0.5 })).toBeCloseTo(now, 9);
  });

  it('pulls stay on their scale, a fan has none, and back to today is today', () => {
    const far = run({ type: 'pull', position: at('hose'), to: 7 }, { type: 'nudge', position: at('hose'), by: 1 });
    expect(pullAt(far, view, at('hose'))).toBe(FARTHEST);
    expect(pullAt(run({ type: 'nudge', position: at('hose'), by: -1 }), view, at('hose'))).toBe(0);
    expect(run({ type: 'pull', position: at('fan'), to: 0.5 })).toEqual({ ...startWhatIf(view), selected: at('fan') });
    expect(run({ type: 'volts', volts: 100 }, { type: 'reset', to: startWhatIf(view) })).toEqual(startWhatIf(view));
    expect(view.model.stages.map(handleOf)).toEqual(['block', 'block', 'block', 'load', 'load', 'drive', 'block']);
    expect(loadOfPull(0, view)).toBe(0);
    expect(blockFactorOf(0.5)).toBe(4);
  });

  it('the picture puts the room at zero, deeper suction lower, and everything inside its height', () => {
    const { asNew, now } = view;
    if (!asNew || !now) throw new Error('no stairs');
    const y = placeOf({ lines: { asNew, now, whatIf: null }, floorPa: -view.parameters.p0Pa, heightPx: 150 });
    for (const pa of [...asNew.nodesPa, ...now.nodesPa]) expect(y(pa) >= 0 && y(pa) <= 150).toBe(true);
    expect(y(-5000)).toBeGreaterThan(y(-1000));
  });
});

describe('the air-path worker', () => {
  it('answers with the staircase of the machine it holds, and says so when it holds none or cannot solve', () => {
    const state = JSON.parse(JSON.stringify(stateOfWhatIf(startWhatIf(view), view))) as Extract<
      AirPathRequest,
      { ask: 'solve' }
    >['state'];
    const held = {
      ask: 'model' as const,
      model: { ...view.model, stages: [...view.model.stages] },
      parameters: view.parameters,
    };
    const answer = answerAirPath(held, { ask: 'solve', id: 7, state });
    expect(answer).toMatchObject({
      kind: 'solved',
      id: 7,
      stairs: { toolFlowM3s: expect.closeTo(view.now?.toolFlowM3s ?? 0, 9) },
    });
    expect(answerAirPath(null, { ask: 'solve', id: 8, state })).toMatchObject({ kind: 'failed', id: 8 });
    expect(
      answerAirPath(held, { ask: 'solve', id: 9, state: { ...state, drive: { speedRatio: 0, supplyPa: null } } }),
    ).toMatchObject({ kind: 'failed', failures: [{ code: 'path.drive' }] });
  });

  it('while it is busy only the newest question is kept, and a garbled answer is not believed', () => {
    const sent: AirPathRequest[] = [];
    const worker: WorkerLike = { postMessage: (m) => void sent.push(m), onmessage: null, terminate: () => undefined };
    const heard: number[] = [];
    const client = openAirPath(
      { model: view.model, parameters: view.parameters, onReply: (r) => void heard.push(r.id) },
      () => worker,
    );
    const states = [1, 2, 3, 4].map((i) => ({
      ...stateOfWhatIf(startWhatIf(view), view),
      drive: { speedRatio: 1 - i / 100, supplyPa: null },
    }));
    states.forEach((s) => client.ask(s));
    const asked = () => sent.flatMap((m) => (m.ask === 'solve' ? [m.state.drive.speedRatio] : []));
    expect(asked()).toEqual([0.99]);
    worker.onmessage?.({ data: { kind: 'failed', id: 1, failures: [] } } as MessageEvent<unknown>);
    expect(asked()).toEqual([0.99, 0.96]);
    worker.onmessage?.({ data: { kind: 'nonsense' } } as MessageEvent<unknown>);
    expect(heard).toEqual([1]);
    client.ask(states[0] ?? view.today.state);
    expect(asked()).toEqual([0.99, 0.96, 0.99]);
  });
});
