// A case of the other yard from a seed: its machine, its faults, its people, as the walkers meet it.
import type { Complaint } from '@/core/diagnose/complaint';
import type { MachineTraits } from '@/core/diagnose/fault';
import { EXPOSURE_MINUTES, type HazardLevel } from '@/core/diagnose/operation';
import type { MachineRecord } from '@/core/diagnose/record-prior';
import type { Repair, RepairKind } from '@/core/diagnose/repair';
import type { MachineClass } from '@/core/filter/machine-class';
import type { MachineKind } from '@/core/machine/kinds';
import type { StageKind } from '@/core/path/stage-kinds';
import { type Random, seeded } from '../../../../demo/random';
import { KINDS } from '../true-case';
import type { Ending, WalkCase } from '../walk-case';
import { settle } from './air';
import { drawFaults, kindsOf, type OwnFault, toolFlow } from './faults';
import { dayOf, flowLeft, leftOf, type Seen, seenBy } from './looks';
import { gapAt, ownMachine, type OwnMachine, range, spread } from './machines';

const CLASSES: Partial<Record<MachineKind, MachineClass>> = {
  mExtractor: 'M',
  hExtractor: 'H',
  hepaTank: 'HEPA',
  grinderExtractor: 'HEPA',
  pneumaticHepa: 'HEPA',
};
const LEVELS: Partial<Record<MachineKind, readonly HazardLevel[]>> = {
  hExtractor: ['contained'],
  hepaTank: ['contained', 'controlled', 'plain'],
  grinderExtractor: ['controlled', 'contained'],
  pneumaticHepa: ['contained', 'controlled'],
  floorCleaner: ['plain', 'controlled'],
};

/** A part's worth and its fitting, minutes. Common practice, no published source. */
const PARTS: Partial<Record<StageKind, number>> = {
  bag: 8,
  prefilter: 15,
  mainFilter: 35,
  exhaustFilter: 20,
  gas: 40,
  canister: 60,
  hepa: 70,
};
const REPAIRS: Record<RepairKind, readonly [minutes: number, exposure: number]> = {
  newPart: [4, 2],
  reseat: [3, 2],
  clear: [5, 1],
  newHose: [28, 0],
  newSeal: [14, 1],
  serviceFan: [120, 0],
  supply: [3, 0],
  settings: [0.5, 0],
  indicator: [30, 0],
  brush: [6, 1],
};

const traitsOf = (random: Random, { kind, known }: OwnMachine): MachineTraits => {
  const hasLamp = kind === 'mExtractor' || kind === 'hExtractor' || (kind === 'hepaTank' && random.uniform() < 0.4);
  return {
    hasLamp,
    hasBrush: kind === 'floorCleaner',
    selectorM: hasLamp ? known.model.hoseBoreM : null,
    machineClass: CLASSES[kind] ?? null,
  };
};

const complaintOf = (s: Seen): Complaint => {
  const { faults, random, day } = s;
  const has = (kind: OwnFault['kind']) => faults.some((f) => f.kind === kind);
  const ratio = flowLeft(s, []);
  const limit = (day.lightM3s ?? 0) * (has('wrongSelector') ? 1.7 : 1);
  const lit =
    day.lightM3s !== null && (has('indicatorOut') || (ratio * toolFlow(s.machine.air)) / s.machine.tools < limit);
  if (ratio < 0.82) return lit && random.uniform() < 0.4 ? 'light' : random.uniform() < 0.1 ? 'labours' : 'noSuction';
  if (has('brushJammed')) return 'noSuction';
  if (has('bearings')) return 'labours';
  if (lit) return 'light';
  if (has('spentGas')) return 'smell';
  if (faults.some((f) => f.past > 0)) return random.uniform() < 0.75 ? 'dust' : 'round';
  return (['noSuction', 'round', 'dust', 'labours'] as const)[Math.floor(random.uniform() * 4)] ?? 'round';
};

const recordOf = ({ machine, faults, random }: Seen): MachineRecord => ({
  wet: false,
  blinding: false,
  causes: [],
  stages: machine.known.model.stages.map((s, i) => {
    const medium = s.spec.air.form === 'medium';
    const at = faults.filter((f) => f.position === i);
    const blocked = at.some((f) => f.kind === 'blocked');
    return {
      lifeUsed: !medium || random.uniform() < 0.3 ? null : blocked ? range(random, 0.2, 1.6) : range(random, 0.02, 1.1),
      justOpened:
        medium && random.uniform() < (at.some((f) => f.kind === 'misseated' || f.kind === 'missing') ? 0.5 : 0.15),
    };
  }),
});

/** Below this share of its own sound flow a user feels it. */
const FELT = 0.8;

const endingOf = (s: Seen, repairs: readonly Repair[]): Ending => {
  const still = leftOf(s.faults, repairs);
  const quiet = (f: OwnFault) => f.past > 0 || f.kind === 'reversed' || f.kind === 'spentGas';
  const rest = still.filter((f) => !quiet(f));
  const felt = flowLeft(s, repairs) < FELT || rest.some((f) => f.kind === 'brushJammed');
  return { felt, root: !felt && rest.length > 0, silent: still.some(quiet) };
};

/** A machine of the other yard with hidden faults, from a seed. */
export const yardCase = (seed: number): WalkCase => {
  const random = seeded(0x5eed0000 + seed);
  const kind = KINDS[seed % KINDS.length] ?? 'shopVacuum';
  const machine = ownMachine(random, kind);
  const traits = traitsOf(random, machine);
  const bore = machine.known.model.hoseBoreM ?? 0.036;
  const light = traits.hasLamp ? 20 * (Math.PI / 4) * bore ** 2 * spread(random, 0.06) : null;
  const s: Seen = { machine, faults: drawFaults(machine, random, traits), day: dayOf(random, light), random };
  const levels = LEVELS[kind] ?? (['plain', 'controlled'] as const);
  const hazard = levels[Math.floor(random.uniform() * levels.length)] ?? 'controlled';
  const kinds = kindsOf(machine);
  return {
    seed,
    kind,
    known: machine.known,
    faults: s.faults,
    traits,
    hazard,
    complaint: complaintOf(s),
    record: recordOf(s),
    byAir: kind === 'pneumaticHepa',
    watch: (operation, interventions) => seenBy(s, operation, interventions),
    left: (repairs) => leftOf(s.faults, repairs),
    ending: (repairs) => endingOf(s, repairs),
    soundFlow: (place) =>
      settle(machine.air, { gap: gapAt(kinds, place), sealed: false }).entersM3s * spread(random, 0.05),
    repairMinutes: ({ kind: repair, position }) => {
      const [minutes, exposure] = REPAIRS[repair];
      const part = repair === 'newPart' ? (PARTS[kinds[position] ?? 'bag'] ?? 10) : 0;
      return minutes + part + exposure * EXPOSURE_MINUTES[hazard];
    },
    countsNeeded: true,
  };
};
