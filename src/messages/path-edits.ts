import type { EditedMachine, PathDifference, PathSnapshot } from '@/core/machine/path-edit';
import { show, type UnitSystem } from '@/core/units';
import { CLASS_WORDS } from './words';

const length = (metres: number | null, units: UnitSystem): string =>
  metres === null ? 'none' : show('length', metres, units);

const sayField = (field: keyof EditedMachine, { machine: m }: PathSnapshot, units: UnitSystem): string => {
  switch (field) {
    case 'name':
      return `now named ${m.name}`;
    case 'maker':
      return `maker ${m.maker}`;
    case 'place':
      return `now in the ${m.place}`;
    case 'machineClass':
      return `class on its plate ${m.machineClass === null ? 'none' : CLASS_WORDS[m.machineClass]}`;
    case 'hasBrush':
      return m.hasBrush ? 'has a brush' : 'has no brush';
    case 'wetSet':
      return m.wetSet ? 'set up for wet pick-up' : 'set up for dry work';
    case 'hoseBoreM':
      return `hose bore ${length(m.hoseBoreM, units)}`;
    case 'hoseLengthM':
      return `hose length ${m.hoseLengthM === null ? 'none' : `${m.hoseLengthM} m`}`;
    case 'hoseSelectorM':
      return `hose selector ${length(m.hoseSelectorM, units)}`;
    case 'nominalVolts':
      return `nominal voltage ${m.nominalVolts} V`;
  }
};

/** One thing an edit changed, short enough for a title. */
export const sayDifference = (d: PathDifference, after: PathSnapshot, units: UnitSystem): string => {
  switch (d.kind) {
    case 'added':
      return `${d.stage} added`;
    case 'removed':
      return `${d.stage} taken off`;
    case 'missing':
      return `${d.stage} found missing`;
    case 'restored':
      return `${d.stage} back in place`;
    case 'refitted':
      return `${d.stage}: part, seat or rating`;
    case 'resized':
      return `${d.stage}: sizes`;
    case 'moved':
      return 'stages in another order';
    case 'renamed':
      return `${d.was} now named ${d.stage}`;
    case 'machine':
      return sayField(d.field, after, units);
  }
};
