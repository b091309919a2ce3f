import { REFERENCE_AIR } from '@/core/path/model/air';
import { type Chain, type Element, tightChain } from '@/core/path/model/element';
import { NOMINAL_DRIVE } from '@/core/path/model/fan';
import type { AirPath } from '@/core/path/model/path';

const straight: Element = { kind: 'fan', curve: { kind: 'universal', p0Pa: 22_000, qMaxM3s: 0.07, a: 1 } };
const squared: Element = { kind: 'fan', curve: { kind: 'centrifugal', p0Pa: 2600, qMaxM3s: 0.5 } };
const nozzle: Element = { kind: 'nozzle', areaM2: 7e-4, coefficient: 0.75 };
const hose = (boreM: number, lengthM: number, roughnessM: number): Element => ({
  kind: 'line',
  boreM,
  lengthM,
  friction: { by: 'roughness', roughnessM },
  entryK: 0.5,
  exitK: 1,
});
const medium = (k1PaSM: number, areaM2: number, dustKg = 0): Element => ({
  kind: 'medium',
  k1PaSM,
  k2PaSMKg: 5e4,
  areaM2,
  dustKg,
});
const exhaust: Element = { kind: 'fitting', lossK: 1, boreM: 0.05 };
const wide: Element = { kind: 'fitting', lossK: 1.5, boreM: 0.15 };

const path = (trunk: Chain, mouths: readonly Chain[] = []): AirPath => ({
  mouths,
  trunk,
  drive: NOMINAL_DRIVE,
  air: REFERENCE_AIR,
});
const leaky = (elements: readonly Element[], leaks: Readonly<Record<number, number>>): Chain => ({
  elements,
  leaksM2: Array.from({ length: elements.length + 1 }, (_, i) => (leaks[i] ?? 0) * 1e-6),
});

/** Ten stages with leaks on both sides of the fan: what the speed is told of. */
export const TEN_STAGES: AirPath = path(
  leaky(
    [
      nozzle,
      hose(0.036, 3, 5e-5),
      { kind: 'fitting', lossK: 0.5, boreM: 0.04 },
      medium(500, 0.25),
      medium(1300, 0.5),
      medium(6000, 0.9),
      hose(0.05, 0.5, 1e-5),
      straight,
      medium(200, 0.05),
      exhaust,
    ],
    { 2: 3, 4: 12, 6: 4, 8: 6 },
  ),
);

const way = leaky([nozzle, hose(0.032, 2, 2e-5)], { 1: 2 });

/** Networks that both solvers can hold, by name. Invented sizes, as a workshop has them. */
export const TWINS: Readonly<Record<string, AirPath>> = {
  'series of hose and media': path(
    tightChain([nozzle, hose(0.036, 4, 1e-4), medium(500, 0.25, 0.2), medium(1300, 0.5), straight, exhaust]),
  ),
  'duct of a collector': path(
    tightChain([
      { kind: 'nozzle', areaM2: 0.02, coefficient: 0.8 },
      hose(0.125, 6, 1.5e-4),
      squared,
      wide,
      medium(3000, 20.8),
    ]),
  ),
  'leak before a blocked filter': path(
    leaky([nozzle, hose(0.036, 3, 5e-5), medium(1300, 0.5, 3), straight, exhaust], { 2: 20 }),
  ),
  'leak behind the fan': path(
    leaky([nozzle, hose(0.036, 3, 5e-5), straight, medium(1300, 0.1, 0.1), exhaust], { 3: 40 }),
  ),
  'twin filters of different age': path(
    tightChain([
      nozzle,
      hose(0.05, 5, 1e-4),
      { kind: 'parallel', ways: [[medium(6000, 0.9)], [medium(6000, 0.9, 0.4)]] },
      straight,
      exhaust,
    ]),
  ),
  'two tools on a Y': path(leaky([hose(0.05, 4, 1e-4), medium(1300, 0.5), straight, exhaust], { 0: 5, 1: 10 }), [
    way,
    leaky([nozzle, hose(0.032, 5, 2e-5)], {}),
  ]),
  'long smooth hose': path(tightChain([nozzle, hose(0.05, 30, 0), medium(1300, 0.5), straight, exhaust])),
  'slow air in a wide duct': path(
    tightChain([{ kind: 'nozzle', areaM2: 1e-4, coefficient: 0.7 }, hose(0.3, 10, 1.5e-4), squared, wide]),
  ),
  'ten stages with leaks': TEN_STAGES,
};
