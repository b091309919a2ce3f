import { inBand } from '@/core/diagnose/complaint';
import { EXPOSURE_MINUTES, type Operation, OPERATION_FACTS, priceOf, type TestState } from '@/core/diagnose/operation';
import type { Outcome } from '@/core/diagnose/outcome';
import { cures, type Repair } from '@/core/diagnose/repair';
import type { School } from '@/core/diagnose/next-test';
import type { WalkCase } from './walk-case';

export interface SchoolWalk {
  /** Tests, and repairs that cured nothing. */
  readonly price: number;
  /** Repairs that did. */
  readonly needed: number;
  readonly repairs: readonly Repair[];
}

/** A jump that a technician takes as the answer: a fifth more flow. Common practice, no published source. */
const JUMP = 1.2;
const LEAK_DROP = 0.85;
const LOW_DRIVE = 0.93;

/** A sensible technician with a fixed order of looking: checks the settings, measures the flow, stops when it is back. */
class Technician {
  price = 0;
  needed = 0;
  repairs: Repair[] = [];
  out: number[] = [];
  state: TestState = 'off';
  flow = 0;
  readonly base: number;

  constructor(readonly c: WalkCase) {
    this.base = c.known.baselines['flow toolEnd'] ?? 0;
  }

  interventions() {
    return { out: [...this.out], repairs: [...this.repairs] };
  }

  /** Looks without paying: what is seen anyway while something else is done. */
  see(op: Operation): string {
    const outcome = this.c.watch(op, this.interventions());
    return outcome.kind === 'word' ? outcome.word : '';
  }

  test(op: Operation): Outcome {
    this.price += priceOf(op, { hazard: this.c.hazard, state: this.state });
    this.state = OPERATION_FACTS[op.kind].state;
    return this.c.watch(op, this.interventions());
  }

  word(op: Operation): string {
    const o = this.test(op);
    return o.kind === 'word' ? o.word : '';
  }

  value(op: Operation): number {
    const o = this.test(op);
    return o.kind === 'number' ? o.valueSi : 0;
  }

  measure(): boolean {
    this.flow = this.value({ kind: 'flow', place: 'toolEnd' });
    return inBand({ kind: 'flow', place: 'toolEnd' }, { kind: 'number', valueSi: this.flow }, this.base);
  }

  fix(repair: Repair): void {
    if (this.repairs.some((r) => r.kind === repair.kind && r.position === repair.position)) return;
    const minutes = this.c.repairMinutes(repair);
    if (this.c.left(this.repairs).some((f) => cures(repair, f))) this.needed += minutes;
    else this.price += minutes;
    this.repairs.push(repair);
    this.state = 'off';
  }

  at(want: (kind: string, medium: boolean) => boolean): readonly number[] {
    return this.c.known.model.stages.flatMap((s, i) => (want(s.kind, s.spec.air.form === 'medium') ? [i] : []));
  }

  media(): readonly number[] {
    return this.at((kind, medium) => medium && kind !== 'gas');
  }

  look(position: number): Operation {
    return { kind: this.c.known.model.stages[position]?.kind === 'bag' ? 'lookBag' : 'cleanSide', position };
  }

  /** What an open stage shows of its seat and its medium is put right at once. */
  mind(word: string, position: number): void {
    if (word === 'looseDirt' || word === 'edge' || word === 'reversed') this.fix({ kind: 'reseat', position });
    if (word === 'torn' || word === 'middle' || word === 'missing') this.fix({ kind: 'newPart', position });
  }
}

const dust = (t: Technician): void => {
  for (const position of t.media()) t.mind(t.word(t.look(position)), position);
  if (t.word({ kind: 'particles' }) !== 'above') return;
  const ring = t.at((kind) => kind === 'ring')[0];
  if (ring !== undefined && t.word({ kind: 'smoke' }) === 'leak') t.fix({ kind: 'newSeal', position: ring });
  else t.fix({ kind: 'newPart', position: t.media().at(-1) ?? 0 });
  t.word({ kind: 'particles' });
};

/** What every school ends on: leaks, supply, and at last the fan. */
const tail = (t: Technician): void => {
  const fan = t.at((kind) => kind === 'fan')[0] ?? 0;
  const hose = t.at((kind) => kind === 'hose' || kind === 'duct')[0];
  if (hose !== undefined && t.word({ kind: 'lookHose' }) === 'blocked') {
    t.fix({ kind: 'clear', position: hose });
    if (t.measure()) return;
  }
  const inlet = t.value({ kind: 'sealed', place: 'inlet' });
  const sound = t.c.known.baselines['sealed inlet'] ?? 0;
  if (hose !== undefined && t.value({ kind: 'sealed', place: 'hoseEnd' }) < LEAK_DROP * inlet) {
    t.fix({ kind: 'newHose', position: hose });
    if (t.measure()) return;
  }
  const universal = !t.c.byAir;
  const drive = universal ? t.value({ kind: 'voltage' }) / 230 : t.value({ kind: 'supply' }) / 6.2e5;
  if (drive < LOW_DRIVE) {
    t.fix({ kind: 'supply', position: fan });
    if (t.measure()) return;
  }
  if (inlet < LEAK_DROP * sound) {
    if (t.word({ kind: 'smoke' }) === 'leak') {
      t.fix({ kind: 'newSeal', position: t.media().at(-1) ?? 0 });
      for (const position of t.media()) t.fix({ kind: 'newSeal', position });
      if (t.measure()) return;
    }
    t.fix({ kind: 'serviceFan', position: fan });
    if (t.measure()) return;
  }
  t.fix({ kind: 'clear', position: 0 });
  if (t.measure()) return;
  for (const position of t.at((kind) => kind === 'inlet' || kind === 'cyclone')) t.fix({ kind: 'clear', position });
  if (t.measure()) return;
  t.fix({ kind: 'serviceFan', position: fan });
  t.measure();
};

const takeOut = (t: Technician): void => {
  for (const position of t.media()) {
    const before = t.flow;
    const flow = t.value({ kind: 'takeOut', position });
    t.mind(t.see(t.look(position)), position);
    if (flow < JUMP * before) {
      t.out.push(position);
      t.flow = flow;
      continue;
    }
    t.out = [];
    t.fix({ kind: 'newPart', position });
    if (t.measure()) return;
  }
  t.out = [];
  if (t.measure()) return;
  tail(t);
};

const swapIn = (t: Technician): void => {
  for (const position of t.media()) {
    const op: Operation = { kind: 'swap', position };
    const before = t.flow;
    // A part that goes back into stock unspoilt costs its opening only.
    t.price -= OPERATION_FACTS.swap.partMinutes;
    const flow = t.value(op);
    t.mind(t.see(t.look(position)), position);
    if (flow < JUMP * before) continue;
    t.fix({ kind: 'newPart', position });
    t.flow = flow;
    if (flow >= 0.85 * t.base) return;
  }
  tail(t);
};

const nozzleInward = (t: Technician): void => {
  const sound = (place: 'hoseEnd' | 'inlet') => t.c.known.baselines[`flow ${place}`] ?? t.c.soundFlow(place);
  const hose = t.at((kind) => kind === 'hose' || kind === 'duct')[0] ?? 0;
  t.word({ kind: 'lookNozzle' });
  if (t.value({ kind: 'flow', place: 'hoseEnd' }) >= 0.85 * sound('hoseEnd')) {
    t.fix({ kind: 'clear', position: 0 });
    if (t.measure()) return;
  }
  if (t.word({ kind: 'lookHose' }) === 'blocked') {
    t.fix({ kind: 'clear', position: hose });
    if (t.measure()) return;
  }
  if (t.value({ kind: 'flow', place: 'inlet' }) >= 0.85 * sound('inlet')) {
    t.fix({ kind: 'newHose', position: hose });
    if (t.measure()) return;
  }
  for (const position of t.media()) {
    const bag = t.c.known.model.stages[position]?.kind === 'bag';
    const word = bag ? t.word({ kind: 'lookBag', position }) : t.word({ kind: 'weigh', position });
    t.mind(bag ? word : t.see(t.look(position)), position);
    if (word !== 'full' && word !== 'severalTimes') continue;
    t.fix({ kind: 'newPart', position });
    if (t.measure()) return;
  }
  tail(t);
};

const ORDER: Record<Exclude<School, 'best'>, (t: Technician) => void> = { takeOut, swap: swapIn, nozzleInward };

/** Minutes of exposure are priced as the engine's are. */
export const exposureMinutes = EXPOSURE_MINUTES;

/** Walks a case by a fixed school. */
export const schoolWalk = (c: WalkCase, school: Exclude<School, 'best'>): SchoolWalk => {
  const t = new Technician(c);
  const fan = t.at((kind) => kind === 'fan')[0] ?? 0;
  const setting = t.word({ kind: 'settings' });
  if (setting === 'setting' || setting === 'selector') t.fix({ kind: 'settings', position: fan });
  if (setting === 'brush') t.fix({ kind: 'brush', position: 0 });
  const gas = t.at((kind) => kind === 'gas')[0];
  if (c.complaint === 'dust') dust(t);
  else if (c.complaint === 'smell' && gas !== undefined) t.fix({ kind: 'newPart', position: gas });
  const back = t.measure();
  if (!back) ORDER[school](t);
  if (
    c.complaint === 'light' &&
    c.traits.hasLamp &&
    t.word({ kind: 'lamp' }) === 'lit' &&
    t.word({ kind: 'disc' }) === 'bad'
  )
    t.fix({ kind: 'indicator', position: fan });
  if (c.complaint === 'labours' && t.word({ kind: 'listen' }) === 'grumble')
    t.fix({ kind: 'serviceFan', position: fan });
  return { price: t.price, needed: t.needed, repairs: t.repairs };
};
