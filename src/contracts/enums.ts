import { z } from 'zod';
import { DUST_HAZARDS } from '@/core/dust/level';

export const MethodName = z.enum([
  'flowMeter',
  'anemometer',
  'anemometerTraverse',
  'pitot',
  'pitotTraverse',
  'orifice',
  'sealedSuction',
  'suctionCurve',
  'stageDp',
  'filterMass',
  'lineVoltage',
  'current',
  'supplyPressure',
  'brushSpeed',
  'particles',
  'gaugeZone',
  'hand',
  'indicator',
]);
export const PlaceName = z.enum(['toolEnd', 'hoseEnd', 'inlet', 'outlet']);
export const ChangeReasonName = z.enum(['gauge', 'date', 'count', 'fill', 'damage', 'test', 'precaution']);
export const MachineClassName = z.enum(['L', 'M', 'H', 'HEPA']);
export const IntegrityTestName = z.enum(['particles', 'cleanSide', 'smoke']);
export const HazardName = z.enum(DUST_HAZARDS);

export const MachineKindName = z.enum([
  'shopVacuum',
  'mExtractor',
  'hExtractor',
  'hepaTank',
  'grinderExtractor',
  'pneumaticHepa',
  'singleStageCollector',
  'cycloneCollector',
  'fumeExtractor',
  'floorCleaner',
  'centralUnit',
]);

export const StageKindName = z.enum([
  'nozzle',
  'shroud',
  'hood',
  'hose',
  'wye',
  'duct',
  'inlet',
  'ring',
  'cyclone',
  'dropChamber',
  'bag',
  'foam',
  'cloth',
  'prefilter',
  'mainFilter',
  'canister',
  'hepa',
  'gas',
  'fan',
  'exhaustFilter',
  'muffler',
  'exhaust',
]);

export const QuantityKindName = z.enum([
  'pressure',
  'flow',
  'velocity',
  'length',
  'area',
  'mass',
  'temperature',
  'temperatureDifference',
  'power',
  'volume',
  'concentration',
  'countConcentration',
  'relativeHumidity',
  'density',
  'voltage',
  'current',
  'rotation',
  'duration',
  'count',
]);
