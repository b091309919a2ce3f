import type { MachineKindFacts } from '@/core/machine/kinds';
import type { DustHazard, MachineClass } from '@/core/machine/machine';
import type { Method, MethodGroup, Precondition } from '@/core/measure/methods';
import type { Place } from '@/core/measure/place';
import type { ChangeReason } from '@/core/record/records';
import type { MovementReason } from '@/core/stock/ledger';

/** A table's entry for a key that came in as text; null when the table has no such key of its own. */
export const entry = <V>(table: Readonly<Record<string, V>>, key: string): V | null =>
  Object.hasOwn(table, key) ? (table[key] ?? null) : null;

export const QUANTITY_WORDS: Readonly<Record<string, string>> = {
  pressure: 'pressure',
  flow: 'flow',
  velocity: 'velocity',
  length: 'length',
  area: 'area',
  mass: 'weight',
  temperature: 'temperature',
  temperatureDifference: 'temperature difference',
  power: 'power',
  volume: 'volume',
  concentration: 'concentration',
  countConcentration: 'count',
  relativeHumidity: 'relative humidity',
  density: 'density',
  voltage: 'voltage',
  current: 'current',
  rotation: 'speed',
  duration: 'time',
  count: 'count',
};

export const PLACE_WORDS: Record<Place, string> = {
  toolEnd: 'tool end',
  hoseEnd: 'hose end',
  inlet: 'machine inlet',
  outlet: 'outlet',
};

export const METHOD_WORDS: Record<Method, string> = {
  flowMeter: 'Flow meter',
  anemometer: 'Anemometer in a pipe',
  anemometerTraverse: 'Anemometer traverse',
  pitot: 'Pitot, centre',
  pitotTraverse: 'Pitot traverse',
  orifice: 'Orifice plate',
  sealedSuction: 'Sealed suction',
  suctionCurve: 'Suction curve',
  stageDp: 'Across a stage',
  gaugeZone: 'Gauge zone',
  filterMass: 'Filter weight',
  particles: 'Particle count',
  hand: 'Hand',
  indicator: 'Indicator light',
  lineVoltage: 'Line voltage',
  current: 'Current',
  supplyPressure: 'Air supply',
  brushSpeed: 'Brush speed',
};

export const GROUP_WORDS: Record<MethodGroup, string> = {
  flow: 'Flow',
  suction: 'Suction',
  filter: 'Filter',
  dust: 'Dust',
  feel: 'Feel and see',
  supply: 'Supply',
};

export const METHOD_HINTS: Record<Method, string> = {
  flowMeter: 'reads flow directly',
  anemometer: 'centre velocity, known bore',
  anemometerTraverse: 'points across the duct',
  pitot: 'velocity pressure, one point',
  pitotTraverse: 'velocity pressure, many points',
  orifice: 'drop across a known hole',
  sealedSuction: 'gauge closes the opening',
  suctionCurve: 'suction at several holes',
  stageDp: 'drop over one stage',
  gaugeZone: 'green, amber or red',
  filterMass: 'against a new one',
  particles: 'exhaust less the room',
  hand: 'four words, no number',
  indicator: 'judged 10-15 s after start',
  lineVoltage: 'at the socket, running',
  current: 'falls when the path is blocked',
  supplyPressure: 'for air-driven machines',
  brushSpeed: 'a slipping belt shows here',
};

export const PRECONDITION_WORDS: Record<Precondition, string> = {
  speedHigh: 'Speed on high',
  bleedClosed: 'Regulator and bleed closed',
  hoseAsBaseline: 'Hose and length as baseline',
  settled: 'Settled 10-15 s',
  rigSealed: 'Rig sealed, not moved',
  meterZeroed: 'Meter zeroed',
  brushStated: 'Brush as baseline',
};

export const REASON_WORDS: Record<ChangeReason, string> = {
  gauge: 'Gauge',
  date: 'Date',
  count: 'Count',
  fill: 'Full',
  damage: 'Damage',
  test: 'Test',
  precaution: 'While it was open',
};

export const REASON_HINTS: Record<ChangeReason, string> = {
  gauge: 'needle or light',
  date: 'interval reached',
  count: 'count reached',
  fill: 'at the mark',
  damage: 'torn, wet, bent',
  test: 'a reading',
  precaution: 'changed as well',
};

export const CLASS_WORDS: Record<MachineClass, string> = { L: 'L class', M: 'M class', H: 'H class', HEPA: 'HEPA' };

/** State of the machine during an action: isolated, running and closed, or worked at while it runs. */
export type Standing = 'cutOff' | 'running' | 'openRunning';

const FIRST: Record<Standing, string> = {
  cutOff: 'Isolate it first. ',
  running: '',
  openRunning: 'It runs while open, as its maker built it: stay with it. ',
};

const OPENED: Record<DustHazard, string> = {
  plain: 'Close the old bag before you move it.',
  controlled: 'Mask and gloves on. Bag the part and tie it off. Wipe damp. No dry brushing, no compressed air.',
  contained:
    'Close the area. Coverall and respirator on. Plug the inlet before you open anything. Bag the part, tie, wipe, bag again, label. Take the respirator off last, outside.',
};

const CLOSED: Record<DustHazard, string> = {
  plain: 'Nothing is opened.',
  controlled: 'Wear a mask where dust may come out.',
  contained: 'Wear a respirator. Keep others out of the area.',
};

/**
 * The caution of a dust level for an action, one line. Source: common practice, no published source; HSE and OSHA for
 * the order of undressing.
 */
export const sayCaution = (hazard: DustHazard, standing: Standing): string =>
  `${FIRST[standing]}${standing === 'running' ? CLOSED[hazard] : OPENED[hazard]}`;

export const HAZARD_WORDS: Record<DustHazard, string> = {
  plain: 'plain',
  controlled: 'controlled',
  contained: 'contained',
};

export const MOVEMENT_WORDS: Record<MovementReason, string> = {
  opening: 'opening count',
  delivery: 'delivered',
  taken: 'taken for a change',
  returned: 'returned',
  counted: 'counted on the shelf',
  correction: 'record corrected',
};

/** The line that carries this machine's air. */
export const lineWord = (line: MachineKindFacts['line']): string => (line === 'duct' ? 'duct' : 'fitted hose');

/** A number with its noun: "1 check", "3 checks". */
export const counted = (n: number, noun: string): string => `${n} ${noun}${n === 1 ? '' : 's'}`;

export const capital = (sentence: string): string => sentence.charAt(0).toUpperCase() + sentence.slice(1);
