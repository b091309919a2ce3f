import type { Element } from './element';

/** An element with its resistance times a factor, at every flow. Factor above 0. A fan is returned unchanged. */
export const scaleElement = (e: Element, factor: number): Element => {
  switch (e.kind) {
    case 'medium':
      return { ...e, k1PaSM: e.k1PaSM * factor, k2PaSMKg: e.k2PaSMKg * factor };
    case 'fitting':
    case 'cyclone':
      return { ...e, lossK: e.lossK * factor };
    case 'nozzle':
      // A blockage takes area of an opening: its coefficient does not change.
      return { ...e, areaM2: e.areaM2 / Math.sqrt(factor) };
    case 'line':
      // Friction is proportional to length at any Reynolds number, so a longer line replaces a rougher one.
      return { ...e, lengthM: e.lengthM * factor, entryK: e.entryK * factor, exitK: e.exitK * factor };
    case 'resistance':
      return { ...e, r1PaSM3: e.r1PaSM3 * factor, r2PaS2M6: e.r2PaS2M6 * factor };
    case 'check':
      return { ...e, crackPa: e.crackPa * factor, r2PaS2M6: e.r2PaS2M6 * factor };
    case 'series':
      return { kind: 'series', parts: e.parts.map((p) => scaleElement(p, factor)) };
    case 'parallel':
      return { kind: 'parallel', ways: e.ways.map((way) => way.map((p) => scaleElement(p, factor))) };
    case 'fan':
      return e;
  }
};
