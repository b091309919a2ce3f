import type { Dust, DustProperty } from '../dust/dust';
import { MACHINE_KINDS, wayOf } from '../machine/kinds';
import type { Machine } from '../machine/machine';
import type { Demand } from './demand';

// What of a machine and of a work must not meet: sparks and what burns, food and poison, fume and a dust filter. Source:
// handbook of the trade, section 21; common practice, no published source.

const holds = ({ dust }: Machine, want: (d: Dust) => boolean): boolean => dust.standing.dusts.some(want);
/** Properties of a dust that decide which machine may take it. */
export const JUDGED_PROPERTIES: ReadonlySet<DustProperty> = new Set<DustProperty>([
  'combustible',
  'sparking',
  'conductive',
  'food',
  'biological',
  'wet',
]);

export const is = (property: DustProperty) => (d: Dust) => d.properties.includes(property);

/** Media and liners that a spark sets alight. Source: handbook of the trade, section 21. */
const burnsInside = (machine: Machine): boolean =>
  MACHINE_KINDS[machine.kind].collector ||
  holds(machine, is('combustible')) ||
  machine.stages.some((s) => {
    const way = wayOf(machine, s);
    if (s.missing) return false;
    if (way === 'liner' || way === 'bin' || way === 'cycloneBag') return true;
    const { air } = s.spec;
    return air.form === 'medium' && air.medium !== 'hepaGlass' && air.medium !== 'mesh' && air.medium !== 'carbonBed';
  });

/** True where sparks would reach something that burns, or sparking metal would join wood dust, with any tool. */
export const sparksInto = (machine: Machine, { sparks, standing }: Demand): boolean =>
  (sparks && burnsInside(machine)) ||
  (standing.dusts.some(is('sparking')) && (MACHINE_KINDS[machine.kind].collector || holds(machine, is('combustible'))));

/** Poisons do not meet food, nor germs what people would open for them. */
export const mixes = (machine: Machine, { standing }: Demand): boolean => {
  const food = standing.dusts.some(is('food'));
  const germs = standing.dusts.some(is('biological'));
  return (
    (food && holds(machine, (d) => !is('food')(d) && (d.family !== 'nuisance' || d.level !== 'plain'))) ||
    (germs && holds(machine, (d) => d.level === 'contained' && !is('biological')(d))) ||
    (!germs && holds(machine, is('biological')) && standing.level !== 'contained')
  );
};

/** Fume of soldering and lasers passes a dust filter: what holds it is a HEPA and a gas stage. */
export const isGasFume = (d: Dust): boolean => d.family === 'fume' && d.level !== 'contained';
export const holdsFume = ({ stages }: Machine): boolean =>
  (['hepa', 'gas'] as const).every((kind) => stages.some((s) => s.kind === kind && !s.missing));
