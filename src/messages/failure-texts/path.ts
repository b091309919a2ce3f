import type { FailureCode } from '@/core/failure/failure';
import { type Facts, type Text, text, percent, litres } from './facts';

/** Refusals of an air path. */
export const PATH_TEXTS = {
  'path.area': () => [
    'No area',
    'The area of this filter or opening is missing.',
    'Type the area; for a pleated filter, unfolded.',
  ],
  'path.bore': () => [
    'No bore',
    'A hose, duct or fitting needs an inside diameter above zero.',
    'Measure it with a calliper (at most 5 m).',
  ],
  'path.negative': (f) => [
    'Below zero',
    `${text(f['field'])} is ${text(f['value'])}; only the fan may add pressure.`,
    'Type zero or more.',
  ],
  'path.range': (f) => [
    'Out of range',
    `${text(f['field'])} is ${text(f['value'])}, outside ${text(f['low'])} to ${text(f['high'])}.`,
    'Check the number and its unit.',
  ],
  'path.way': () => [
    'Ways side by side',
    'Parallel ways need two or more, each with something in it, and no fan inside.',
    'Enter a single way as a plain stage.',
  ],
  'path.leak': () => [
    'Leak',
    'A leak is an area of zero or more at each node, one more node than stages.',
    'Type the leak in mm²; 12 mm² is a usual lid seal.',
  ],
  'path.node': (f) => [
    'No such place',
    `Place ${text(f['node'])} does not exist on this path (0 to ${text(f['most'])}).`,
    'Air enters before the fan and leaves after it.',
  ],
  'path.fan': (f) => [
    'Fan',
    `A fan with ${text(f['value'])} here cannot move air.`,
    'Type its sealed suction and its free flow, both above zero.',
  ],
  'path.fan-rises': () => [
    'Rising fan curve',
    'This fan curve rises with the flow. A real one falls.',
    'Check which suction belongs to which flow.',
  ],
  'path.drive': (f) => [
    'Drive',
    `The fan is driven at ${text(f['value'])} of its nominal, which is outside what the fan laws hold for.`,
    'Check voltage or supply pressure.',
  ],
  'path.no-point': (f) => [
    'No working point',
    `The fan cannot move that much: with no resistance at all it moves ${litres(f['freeM3s'])}.`,
    'Ask for less flow, or check the fan.',
  ],
  'path.outside-curve': (f) => [
    'Beyond the measured curve',
    `The working point is ${litres(f['flowM3s'])}; the fan was measured from ${litres(f['lowM3s'])} to ${litres(f['highM3s'])}.`,
    'Measure one more orifice on that side.',
  ],
  'path.not-settled': (f) => [
    'Did not settle',
    `The solver stopped after ${text(f['iterations'])} steps with ${text(f['residual'])} left.`,
    'Report this path: it should not happen.',
  ],
  'path.hepa-first': (f) => [
    'Fine before coarse',
    `The ${text(f['fine'])} comes before the ${text(f['coarse'])}: it would take all the coarse dust and clog in days.`,
    `Put the ${text(f['coarse'])} before it.`,
  ],
  'path.gas-first': (f) => [
    'Gas stage before the filter',
    `The ${text(f['gas'])} comes before the ${text(f['filter'])}: dust would clog the carbon, which cannot be cleaned.`,
    'Put the gas stage after the finest filter.',
  ],
  'path.paper-wet': (f) => [
    'Paper in the wet',
    `The ${text(f['stage'])} is ${text(f['medium'])}: it comes apart in wet pick-up.`,
    'Fit foam or mesh for wet work, or clear the wet set.',
  ],
  'path.mouth-late': (f) => [
    'Tool after the hose',
    `The ${text(f['stage'])} is not at the start of the path.`,
    'A nozzle, shroud or hood comes first.',
  ],
  'path.exhaust-early': (f) => [
    'Exhaust before the fan',
    `The ${text(f['stage'])} comes before the fan.`,
    'Put it after the fan.',
  ],
  'path.wye-first': () => [
    'Y without ways',
    'A Y joins what comes before it; here nothing comes before it.',
    'Put the tool (and its own hose) before the Y.',
  ],
  'path.too-long': (f) => ['Too many stages', `${text(f['have'])} stages in one path.`, `At most ${text(f['most'])}.`],
  'stage.name': () => [
    'Two of one name',
    'Two stages of this machine have the same name.',
    'Give them different names: "bag 1", "bag 2".',
  ],
  'stage.used': (f) => [
    'Still named by a rule',
    `A rule counts the changes of the ${text(f['stage'])}.`,
    'Remove that rule first, or mark the stage missing instead.',
  ],
  'calibration.one-point': (f) => [
    'Not enough points',
    `These readings show ${text(f['have'])} working point; ${text(f['need'])} are needed to tell fan, leak and path apart.`,
    'Add a sealed suction, and a flow or a suction curve, as baseline.',
  ],
  'calibration.no-flow': () => [
    'No reading with flow',
    'Sealed readings alone do not show the path.',
    'Add a flow, or a suction at one hole, as baseline.',
  ],
  'calibration.contradictory': (f) => [
    'Readings contradict each other',
    f['label'] === ''
      ? 'No fan and path give these readings.'
      : `No fan and path give all of these readings; the one that fits least is "${text(f['label'])}".`,
    'Re-check that one first, then the orifice sizes and the units.',
  ],
  'load.no-flow': () => [
    'Nothing flows',
    'No filter load explains this reading.',
    'Look for a plug, a closed inlet, or a reading in other units.',
  ],
  'load.less-than-clean': () => [
    'More flow than clean',
    'More air passes than the clean path lets through.',
    'Look for a filter out, torn or not seated, or measure a new baseline.',
  ],
  'train.empty': () => ['No filter', 'There is no filter in this train.', 'Add its stages from dirty to clean.'],
  'train.rating': (f) => [
    'Rating',
    `A rating of ${percent(f['efficiency'])} is not above 0 and below 100 %.`,
    'Type it as printed on the element, such as 99.97 % at 0.3 µm.',
  ],
  'train.bypass': (f) => [
    'Bypass',
    `A bypass of ${percent(f['bypass'])} is outside 0 to 100 %.`,
    'A good seat lets through far less than 0.1 %.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;
