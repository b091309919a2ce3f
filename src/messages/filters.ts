import { toDigits } from '@/core/units';
import { fallsShort, wouldBearMore } from '@/core/filter/label-against-train';
import type { Deserved, Reason } from '@/core/filter/deserved-class';
import type { FilterRating } from '@/core/filter/rating';
import type { ClassStanding } from '@/core/machine/machine';
import { sayGap } from './needs';
import { capital, CLASS_WORDS } from './words';
import type { Statement } from './verdicts';
import { sayShare } from './format';

/** The rating printed on an element. */
export const sayRating = (rating: FilterRating): string => {
  switch (rating.scale) {
    case 'none':
      return 'not rated';
    case 'point':
      return `${toDigits(rating.efficiency * 100, 7)} % at ${rating.sizeUm} µm`;
    case 'en1822':
      return `${rating.grade} (EN 1822)`;
    case 'merv':
      return `MERV ${rating.merv}`;
    case 'dustClass':
      return `element for ${rating.dustClass} class machines`;
  }
};

export const sayReason = (reason: Reason): string => {
  switch (reason.kind) {
    case 'bypass':
      return `the bypass of ${sayShare(reason.bypass)} past the seat of the ${reason.stageName} decides`;
    case 'wholeBypass':
      return `the ${sayShare(reason.bypass)} that bypasses every filter decides`;
    case 'element':
      return `the ${reason.stageName} decides: it lets ${sayShare(reason.penetration)} through`;
    case 'unrated':
      return 'no filter in it carries a rating';
  }
};

/** The best class that the recorded filters could reach: arithmetic, so it never proves a class. */
export const sayDeserved = (d: Deserved): Statement => {
  const at = `at its worst size, ${toDigits(d.sizeUm, 2)} µm, ${sayShare(d.penetration)} gets through`;
  if (d.essential === null)
    return {
      tone: 'open',
      mark: 'Not rated',
      sentence: 'No class can be argued for this train: no filter in it carries a rating.',
      detail: '',
    };
  const because = `${capital(sayReason(d.reason))}.`;
  if (d.dustClass === null)
    return {
      tone: 'watch',
      mark: 'No class',
      sentence: `By calculation not even L class: ${at}.`,
      detail: because,
    };
  return {
    tone: d.dustClass === 'L' ? 'watch' : 'open',
    mark: `By calculation ${d.dustClass} at best`,
    sentence: `By calculation no better than ${d.dustClass} class: ${at}.`,
    detail: because,
  };
};

/** Whether the US words "HEPA filtered" may be used, in a sentence. They need a machine that was tested as a whole. */
export const sayUs = (d: Deserved, { label, onPlate, gap }: ClassStanding): string => {
  const held = `${sayShare(1 - d.penetrationAt03)} held at 0.3 µm as recorded; HEPA asks at least 99.97 %`;
  if (d.essential === null) return 'US: not shown to be HEPA filtered.';
  if (label === 'HEPA')
    return d.usHepa
      ? `US: you may call it HEPA filtered: the whole machine was tested. ${held}.`
      : `US: "HEPA filtered" is in doubt: ${held}.`;
  if (onPlate === 'HEPA' && gap) return `US: "HEPA filtered" is suspended: ${held}.`;
  return `US: do not call it HEPA filtered: the whole machine was not tested as HEPA. ${held}.`;
};

const plateLine = ({ label, gap, onPlate }: ClassStanding, d: Deserved): Statement => {
  if (gap)
    return {
      tone: 'stop',
      mark: gap.standing === 'suspended' ? 'Suspended' : 'Withdrawn',
      sentence: `Do not call it ${onPlate === null ? 'rated' : CLASS_WORDS[onPlate]} now. ${sayGap(gap, onPlate)}`,
      detail: 'The class belongs to the tested appliance, proven after every opening of its seat.',
    };
  if (label === null)
    return {
      tone: 'open',
      mark: 'No class',
      sentence: 'It was never tested as a class machine. Do not call it one, with any filter.',
      detail: '',
    };
  return fallsShort(label, d)
    ? {
        tone: 'watch',
        mark: 'In doubt',
        sentence: `It may be called ${CLASS_WORDS[label]} by its plate, but the filters as recorded do not bear it out.`,
        detail: `${capital(sayReason(d.reason))}: look at that before it works on such dust.`,
      }
    : {
        tone: 'good',
        mark: CLASS_WORDS[label],
        sentence: `You may call it ${CLASS_WORDS[label]}: the maker tested it, no filter has been opened without a proof since, and the filters on record fit.`,
        detail: 'Suspended again by any opening of its seat until that is proven.',
      };
};

/** The words that the label may and may not say. */
export const sayLabel = (
  standing: ClassStanding,
  d: Deserved,
): { readonly may: Statement; readonly mayNot: readonly string[] } => {
  const { label } = standing;
  return {
    may: plateLine(standing, d),
    mayNot: [
      ...(wouldBearMore(label, d) && d.dustClass !== null
        ? [
            `Not "${d.dustClass} class": a class is tested on the whole appliance, seals and warning light included, not summed from its filters.`,
          ]
        : []),
      ...(label === 'HEPA'
        ? [
            'Not "meets the silica table": that asks for flow, shroud, cyclone or filter cleaning and a respirator too (29 CFR 1926.1153).',
          ]
        : ['Not "HEPA filtered": that is a machine tested so as a whole, not an element in it.']),
      'Not "certified" by this card: it is arithmetic on what was entered; class testing stays with those authorised.',
    ],
  };
};
