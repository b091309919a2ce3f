import { INSPECTION_WORDS } from '../constants/word-shares';
import type { Fault, MachineTraits } from './fault';
import {
  bagWords,
  cleanSideWords,
  gaugeWords,
  handWords,
  has,
  soundWords,
  lampWords,
  particleWords,
  purgeWords,
  settingWords,
  severityOf,
  weightWords,
} from './expected-words';
import { type Operation, operationKey } from './operation';
import { type Expected, yesNo } from './outcome';
import type { Interventions, FaultSimulator, Signature } from './signature';
import type { Hypothesis } from './hypotheses';

/** The machine a case is about, as the model knows it. */
export interface CaseSubject {
  readonly faultSimulator: FaultSimulator;
  readonly traits: MachineTraits;
  readonly hoseM: number | null;
  readonly nominalVolts: number;
  /** Measured against its own baselines; otherwise on typical figures, which are in doubt themselves. */
  readonly calibrated: boolean;
  /** Readings of the machine when sound, SI, by the key of the test; the model is calibrated to them. */
  readonly baselines: Readonly<Partial<Record<string, number>>>;
}

/** The model's doubt and the meter's together: today may sit several per cent off with nothing wrong. Moorwind defaults. */
const DOUBT = { flow: 0.05, sealed: 0.035, stageDp: 0.28, voltage: 0.015, supply: 0.05 } as const;
/**
 * Relative uncertainty when the calibrated model misses a baseline: of the same measurement, of a neighbouring one, of
 * one never taken.
 */
const UNCALIBRATED = { own: 0.06, beside: 0.12, typical: 0.2 } as const;
/** Readings below this share of the sound figure count as equal. */
const FLOOR = 0.02;
const FLOOR_DP_PA = 12;

type Measured = keyof typeof DOUBT;

/** A reading of the sound machine, and its source. */
interface Sound {
  readonly scale: number;
  readonly known: keyof typeof UNCALIBRATED;
}

const MEASURED_AT = ['toolEnd', 'hoseEnd', 'inlet'] as const;

/** By its own baseline; else as the model has it, stretched as the baselines beside it ask; else as the model has it. */
const soundOf = (op: Operation, modelled: number, subject: CaseSubject): Sound => {
  const own = subject.baselines[operationKey(op)];
  if (own !== undefined) return { scale: own, known: 'own' };
  if (op.kind !== 'flow' && op.kind !== 'sealed') return { scale: modelled, known: 'typical' };
  const { air } = subject.faultSimulator.sound;
  const logs = MEASURED_AT.flatMap((place) => {
    const read = subject.baselines[`${op.kind} ${place}`];
    const said = op.kind === 'flow' ? air.flowM3s(place) : air.sealedPa(place);
    return read !== undefined && read > 0 && said > 0 ? [Math.log(read / said)] : [];
  });
  return logs.length === 0
    ? { scale: modelled, known: 'typical' }
    : { scale: modelled * Math.exp(logs.reduce((a, b) => a + b, 0) / logs.length), known: 'beside' };
};

const numberOf = (
  what: Measured,
  {
    mean,
    sound: { scale, known },
    subject,
  }: { readonly mean: number; readonly sound: Sound; readonly subject: CaseSubject },
): Expected => {
  const own = what === 'voltage' || what === 'supply';
  const relative = Math.hypot(DOUBT[what], subject.calibrated || own ? 0 : UNCALIBRATED[known]);
  return { kind: 'number', mean, relative, floor: what === 'stageDp' ? FLOOR_DP_PA : FLOOR * scale + 1e-12 };
};

/** A figure of the model, brought to what the machine itself read when it was sound. */
const brought = (
  op: Operation,
  [modelled, sound]: readonly [modelled: number, sound: number],
  subject: CaseSubject,
): { readonly mean: number; readonly sound: Sound } => {
  const was = soundOf(op, sound, subject);
  return { mean: sound > 0 ? (modelled * was.scale) / sound : modelled, sound: was };
};

const flowOf = (s: Signature, place: 'toolEnd' | 'hoseEnd' | 'inlet', subject: CaseSubject): Expected =>
  numberOf('flow', {
    ...brought(
      { kind: 'flow', place },
      [s.air.flowM3s(place), subject.faultSimulator.sound.air.flowM3s(place)],
      subject,
    ),
    subject,
  });

const curveKind = ({ faultSimulator }: CaseSubject): string => {
  const air = faultSimulator.suspect.model.stages.find((x) => x.kind === 'fan')?.spec.air;
  return air?.form === 'fan' ? air.curve.kind : '';
};

/** Slip of a small induction motor at its plate's load and voltage, as a share of speed. A usual figure, from memory. */
const SLIP = 0.03;

/**
 * Voltage as a share of nominal at which a fan turns this share of its speed. A universal motor's speed goes with the
 * root of it; an induction motor's slip with its inverse square (small slip at one torque). Source: motor theory, from
 * memory. Valid: a speed of 0 to 1.
 */
export const voltsOfSpeed = (speed: number, kind: string): number =>
  kind === 'centrifugal' ? 1 / Math.sqrt(1 + (1 - speed) / SLIP) : speed ** 2;

const nominalSupply = (subject: CaseSubject): number => {
  const air = subject.faultSimulator.suspect.model.stages.find((x) => x.kind === 'fan')?.spec.air;
  return air?.form === 'fan' && air.curve.kind === 'pneumatic' ? air.curve.nominalSupplyPa : 0;
};

const sizeOfFirst = (s: Signature, kind: Fault['kind'], subject: CaseSubject): number => {
  const fault = s.faults.find((f) => f.kind === kind);
  return fault ? subject.faultSimulator.sizeOf(fault) : 1;
};

const firstMedium = ({ faultSimulator }: CaseSubject): number =>
  faultSimulator.suspect.model.stages.findIndex((x) => x.spec.air.form === 'medium');

/** The state of the machine in which a test is read: a part out, a new part in, the cover off. */
export const handlingOf = (op: Operation, interventions: Interventions, subject: CaseSubject): Interventions => {
  if (op.kind === 'takeOut')
    return interventions.out.includes(op.position)
      ? interventions
      : { ...interventions, out: [...interventions.out, op.position] };
  if (op.kind === 'swap')
    return { ...interventions, repairs: [...interventions.repairs, { kind: 'newPart', position: op.position }] };
  if (op.kind !== 'lampCoverOff') return interventions;
  const before = Array.from({ length: Math.max(0, firstMedium(subject)) }, (_, i) => i);
  return { ...interventions, out: [...new Set([...interventions.out, ...before])] };
};

const underNozzle = (s: Signature, subject: CaseSubject): Expected => {
  const w = INSPECTION_WORDS.underNozzle;
  const was = subject.faultSimulator.sound.air.flowM3s('toolEnd');
  const weak = was > 0 ? 1 - s.air.flowM3s('toolEnd') / was : 0;
  return yesNo(
    'dirtDropped',
    'clean',
    Math.min(
      w.most,
      w.without + w.byLoss * Math.max(0, weak - w.fromLoss) + w.byBlocked * (has(s.faults, 'blocked', 0) ? 1 : 0),
    ),
  );
};

const throughHose = (s: Signature, subject: CaseSubject): Expected => {
  const w = INSPECTION_WORDS.throughHose;
  const hose = subject.faultSimulator.suspect.model.stages.findIndex((x) => x.kind === 'hose' || x.kind === 'duct');
  return yesNo(
    'blocked',
    'clear',
    has(s.faults, 'blocked', hose) ? w.base + w.bySeverity * severityOf(s.faults, ['blocked'], hose) : w.without,
  );
};

const smoke = (s: Signature): Expected => {
  const w = INSPECTION_WORDS.smoke;
  const [leak, seat, hole] = [
    severityOf(s.faults, ['leakingSeal']),
    severityOf(s.faults, ['misseated']),
    severityOf(s.faults, ['hoseHoled']),
  ];
  return yesNo(
    'leak',
    'tight',
    Math.min(
      w.most,
      w.without + (leak > 0 ? w.seal + w.sealBySeverity * leak : 0) + (seat > 0 ? w.seat : 0) + (hole > 0 ? w.hole : 0),
    ),
  );
};

/**
 * Chances of finding a fault while repairing it: a present fault is nearly always recognised, an absent one rarely
 * reported.
 */
const FOUND = { there: 0.93, not: 0.06 } as const;

const found = (op: Extract<Operation, { kind: 'found' }>, faults: Hypothesis['faults']): Expected =>
  yesNo('yes', 'no', faults.some((f) => f.kind === op.fault && f.position === op.position) ? FOUND.there : FOUND.not);

/** The machine, and the bias of a hand: 1 for none. */
export interface SeenOn {
  readonly subject: CaseSubject;
  readonly bias?: number;
}

/** The expected reading of a test on a machine in a given state. */
export const expectedIn = (op: Operation, s: Signature, { subject, bias = 1 }: SeenOn): Expected => {
  const { sound, suspect } = subject.faultSimulator;
  switch (op.kind) {
    case 'flow':
      return flowOf(s, op.place, subject);
    case 'takeOut':
    case 'swap':
      return flowOf(s, 'toolEnd', subject);
    case 'hand': {
      const was = sound.air.flowM3s(op.place);
      return handWords(was > 0 ? (bias * s.air.flowM3s(op.place)) / was : 0);
    }
    case 'sealed':
      return numberOf('sealed', {
        ...brought(op, [s.air.sealedPa(op.place), sound.air.sealedPa(op.place)], subject),
        subject,
      });
    case 'stageDp':
      return numberOf('stageDp', {
        ...brought(op, [Math.max(0, s.air.dropPa(op.position)), sound.air.dropPa(op.position)], subject),
        subject,
      });
    case 'gauge':
      return gaugeWords(s, suspect.model, op.position);
    case 'purge':
      return purgeWords(s, suspect.model, op.position);
    case 'listen':
      return soundWords(s, sound);
    case 'settings':
      return settingWords(s.faults, subject.traits);
    case 'lookNozzle':
      return underNozzle(s, subject);
    case 'lookHose':
      return throughHose(s, subject);
    case 'lookBag':
      return bagWords(s.faults, op.position);
    case 'weigh':
      return weightWords(s.faults, op.position);
    case 'lamp':
    case 'lampCoverOff':
      return lampWords(s.faults, s.air.flowM3s('toolEnd'), subject);
    case 'disc':
      return yesNo(
        'good',
        'bad',
        has(s.faults, 'indicatorOut') || has(s.faults, 'wrongSelector')
          ? INSPECTION_WORDS.disc.goodWithFault
          : INSPECTION_WORDS.disc.goodWithout,
      );
    case 'cleanSide':
      return cleanSideWords(s.faults, op.position);
    case 'particles':
      return particleWords(s.faults, suspect.model);
    case 'smell':
      return yesNo(
        'smells',
        'none',
        has(s.faults, 'spentGas') ? INSPECTION_WORDS.smell.spent : INSPECTION_WORDS.smell.without,
      );
    case 'smoke':
      return smoke(s);
    case 'voltage':
      return numberOf('voltage', {
        mean: subject.nominalVolts * voltsOfSpeed(sizeOfFirst(s, 'lowVoltage', subject), curveKind(subject)),
        sound: { scale: subject.nominalVolts, known: 'own' },
        subject,
      });
    case 'supply':
      return numberOf('supply', {
        mean: nominalSupply(subject) * sizeOfFirst(s, 'lowSupply', subject),
        sound: { scale: nominalSupply(subject), known: 'own' },
        subject,
      });
    case 'found':
      return found(op, s.faults);
  }
};

/**
 * The expected result of a test on a machine with these faults, after earlier repairs and removals. Source: the
 * air-path model; looks are Moorwind defaults.
 */
export const expectedOf = (
  op: Operation,
  faults: Hypothesis['faults'],
  { interventions, subject }: { readonly interventions: Interventions; readonly subject: CaseSubject },
): Expected =>
  expectedIn(op, subject.faultSimulator.signature(faults, handlingOf(op, interventions, subject)), { subject });
