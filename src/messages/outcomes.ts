import { filterWeight } from '@/core/measure/filter-weight';
import { isTooEarly } from '@/core/measure/indicator-wait';
import type { GaugeZone, HandWord, LightState, MethodDetail } from '@/core/measure/detail';
import type { Reduced } from '@/core/measure/reduce-any';
import type { ParticleVerdict } from '@/core/measure/particle-count';
import type { RoomCount } from '@/core/measure/penetration-ratio';
import type { OffCurve, SuctionCurve } from '@/core/measure/suction-curve';
import { show, type UnitSystem, fixed } from '@/core/units';
import { sayPercent } from './job';
import type { Statement } from './verdicts';
import { pValue } from './format';

export const HAND_WORDS: Record<HandWord, string> = {
  none: 'no air',
  weak: 'weak',
  normal: 'normal',
  strong: 'strong',
};
export const ZONE_WORDS: Record<GaugeZone, string> = { green: 'green', amber: 'amber', red: 'red' };
export const LIGHT_WORDS: Record<LightState, string> = { off: 'out', steady: 'on', flashing: 'flashing' };

/** The result of a suction curve; a point that misses by more than the meter's error comes first. */
export const sayCurve = ({ peak, rangeM3s }: SuctionCurve, off: OffCurve | null, units: UnitSystem): Statement => {
  const power = `${fixed(peak.airPowerW, 0)} W${peak.expandedW === null ? '' : ` ± ${fixed(peak.expandedW, 0)} W`}`;
  const where = `${show('flow', peak.flowM3s, units)} and ${show('pressure', peak.suctionPa, units)}`;
  if (off)
    return {
      tone: 'watch',
      mark: 'Off the curve',
      sentence: `Reading ${off.point + 1} lies ${show('pressure', Math.abs(off.residualPa), units)} off the curve, more than this meter can be wrong (${show('pressure', off.allowedPa, units)}). Take that opening again.`,
      detail: `This curve gives ${power} at ${where}. Do not rely on it until the reading is taken again.`,
    };
  return peak.inside
    ? {
        tone: 'good',
        mark: 'Peak air power',
        sentence: `${power} at ${where}.`,
        detail: `Suction times flow; the curve is good from ${show('flow', rangeM3s[0], units)} to ${show('flow', rangeM3s[1], units)}.`,
      }
    : {
        tone: 'open',
        mark: 'Peak outside',
        sentence: `The power is still ${power} at the last opening (${where}): the peak is outside the points measured.`,
        detail: 'Add a larger or a smaller opening.',
      };
};

/** Two counts in words: what of the room comes through, and never that a lower count clears a filter. */
export const sayParticles = (
  p: ParticleVerdict,
  { units, passed }: { readonly units: UnitSystem; readonly passed: RoomCount },
): Statement => {
  const rates = `${show('countConcentration', p.exhaustPerM3, units)} in the exhaust, ${show('countConcentration', p.roomPerM3, units)} in the room`;
  const detail = `95 % (exact Poisson): exhaust ${show('countConcentration', p.exhaustLimits.low, units)} to ${show('countConcentration', p.exhaustLimits.high, units)}; net ${show('countConcentration', p.netLimits.low, units)} to ${show('countConcentration', p.netLimits.high, units)}; p ${pValue(p.p)}.`;
  switch (p.outcome) {
    case 'belowRoom':
      return passed.leaks
        ? {
            tone: 'stop',
            mark: 'Fine dust passes',
            sentence: `${sayPercent(passed.ratio)} of what is in the room comes out of it: ${rates}.`,
            detail: `At least ${sayPercent(passed.low)} passes; no dust class lets more than ${sayPercent(passed.loosestLimit)} through. A machine with a class or a fine filter leaks: do not run it in dust. One without was never meant to hold fines: coarse dust only. ${detail}`,
          }
        : {
            tone: 'open',
            mark: `At most ${sayPercent(passed.high)}`,
            sentence: `${passed.ratio === 0 ? 'Nothing was counted coming through' : `${sayPercent(passed.ratio)} of what is in the room comes through`}; up to ${sayPercent(passed.high)} may: ${rates}.`,
            detail: `A count does not prove a class. ${detail}`,
          };
    case 'aboveRoom':
      return {
        tone: 'stop',
        mark: 'Dirtier than the room',
        sentence: `The exhaust carries more than the room: ${rates}.`,
        detail: `A bypass, a tear, fibre from a new part, or droplets; never count in wet exhaust. ${detail}`,
      };
    case 'notShown':
      return {
        tone: 'open',
        mark: 'Cannot tell',
        sentence: `Cannot tell either way: ${rates}.`,
        detail: `Count longer. ${detail}`,
      };
  }
};

/** A finding in words, without a number. */
export const sayWord = (detail: MethodDetail, stageName: string): Statement => {
  switch (detail.kind) {
    case 'hand': {
      const tone = detail.word === 'normal' ? 'open' : 'watch';
      return {
        tone,
        mark: 'By hand',
        sentence: `Air by hand: ${HAND_WORDS[detail.word]}.`,
        detail: 'A hand cannot feel a loss of 10 to 20 %: measure before you decide.',
      };
    }
    case 'zone': {
      const tone = detail.zone === 'green' ? 'open' : detail.zone === 'amber' ? 'watch' : 'stop';
      const green = 'Green does not prove that it filters. The gauge also reads low when the flow is low.';
      return {
        tone,
        mark: `Gauge ${ZONE_WORDS[detail.zone]}`,
        sentence: `Gauge over the ${stageName}: ${ZONE_WORDS[detail.zone]}.`,
        detail:
          detail.zone === 'green'
            ? green
            : 'Check hose and supply first. Then fit a fresh part before it to find which stage it is.',
      };
    }
    case 'light': {
      const what = `${detail.name === '' ? 'Indicator' : detail.name} ${LIGHT_WORDS[detail.light]} after ${fixed(detail.afterS, 0)} s`;
      if (isTooEarly(detail.afterS))
        return {
          tone: 'open',
          mark: 'Too early',
          sentence: `${what}: too soon to tell.`,
          detail: 'Wait 10 to 15 s after the start.',
        };
      return {
        tone: detail.light === 'off' ? 'open' : 'stop',
        mark: 'Indicator',
        sentence: `${what}.`,
        detail:
          detail.light === 'off'
            ? 'A light that is out proves little: measure the flow at the nozzle as well.'
            : 'A real restriction, or a false light.',
      };
    }
    default:
      return { tone: 'open', mark: 'Seen', sentence: 'Nothing was noted.', detail: '' };
  }
};

/** A filter's weight against a new one. */
export const sayMass = (massKg: number, newMassKg: number): Statement => {
  const { ratio, verdict } = filterWeight({ massKg, newMassKg });
  const sentence = `It weighs ${fixed(ratio, 1)} times a new one.`;
  switch (verdict) {
    case 'blocked':
      return { tone: 'stop', mark: 'Blocked', sentence, detail: 'A plugged filter can weigh four times a new one.' };
    case 'loaded':
      return { tone: 'watch', mark: 'Loaded', sentence, detail: 'Loaded, not yet plugged by weight alone.' };
    case 'nearNew':
      return { tone: 'good', mark: 'Near new', sentence, detail: 'Near new by weight. Weight does not show a tear.' };
  }
};

/** The sentence of a test without a series: a curve, two counts, or a word. */
export const sayOther = (
  reduced: Exclude<Reduced, { form: 'series' }>,
  units: UnitSystem,
  stageName: string,
): Statement => {
  switch (reduced.form) {
    case 'curve':
      return sayCurve(reduced.curve, reduced.off, units);
    case 'particles':
      return sayParticles(reduced.particles, { units, passed: reduced.passed });
    case 'word':
      return sayWord(reduced.detail, stageName);
  }
};
