import { fixed } from '@/core/units';
import type { FailureCode } from '@/core/failure/failure';
import { type Facts, type Text, quantity, whole, text } from './facts';

/** Refusals of a test. */
export const MEASURE_TEXTS = {
  'readings.none': () => [
    'No reading yet',
    'There is nothing to record.',
    'Type at least one reading; three or more for a verdict.',
  ],
  'readings.too-many': (f) => [
    'Too many readings',
    `${text(f['count'])} readings in one test.`,
    `At most ${text(f['most'])}; start a second test.`,
  ],
  'readings.all-struck': () => [
    'Every reading is struck out',
    'No reading is left to count.',
    'Take one more, or leave without recording.',
  ],
  'bore.missing': () => [
    'Bore needed',
    'An anemometer reads velocity: the bore of its pipe makes it a flow.',
    'Measure the inside diameter of the test pipe.',
  ],
  'profile.range': (f) => [
    'Profile factor',
    `A profile factor of ${text(f['factor'])} is outside ${text(f['low'])} to ${text(f['high'])}.`,
    '0.82 by the 1/7-power law, 0.9 by ACGIH practice.',
  ],
  'traverse.plan': () => ['Duct needed', 'A traverse needs the duct size.', 'Give its shape and inside size.'],
  'traverse.incomplete': (f) => [
    'Points missing',
    `Traverse ${text(f['traverse'])} has ${text(f['have'])} of ${text(f['points'])} points.`,
    'Take the missing points: only a whole traverse counts.',
  ],
  'traverse.repeated-point': (f) => [
    'A point twice',
    `Traverse ${text(f['traverse'])} has one point twice.`,
    'Strike out one of the two.',
  ],
  'pitot.negative-point': (f) => [
    'Backwards at a point',
    `${text(f['number'])} ${text(f['unit'])} is a negative velocity pressure: the air turns there, or the tube points the wrong way.`,
    'Turn the tube; if the air does not move there, type 0.',
  ],
  'orifice.missing': () => [
    'Orifice needed',
    'Give the diameter of the hole in the plate.',
    'Measure the hole; a worn edge reads wrong.',
  ],
  'orifice.too-large': () => [
    'Orifice too large',
    'The hole is not smaller than the pipe it sits in.',
    'Check both diameters and their units.',
  ],
  'orifice.pressure': () => [
    'Beyond the formula',
    'The pressure drop is more than a quarter of the air pressure.',
    'Use a larger hole.',
  ],
  'thresholds.order': () => [
    'Wrong way round',
    'The loss to warn of must be smaller than the loss to act on.',
    'Swap the two.',
  ],
  'instrument.negative': () => [
    'Below nothing',
    'The error and the step of an instrument are 0 or more.',
    'Give them without a minus.',
  ],
  'orifice.coefficient': () => [
    'Coefficient needed',
    'The equation for a plate in a pipe (ISO 5167-2) does not hold here: it wants a hole from 12.5 mm in a pipe of 50 mm to 1 m, the hole 0.1 to 0.75 of the bore, and enough flow.',
    'Choose the coefficient of your own plate.',
  ],
  'curve.too-few': (f) => [
    'Too few orifices',
    `A curve needs ${text(f['need'])} different openings; there are ${text(f['have'])}.`,
    'Sealed counts as one of them.',
  ],
  'curve.no-fit': () => [
    'No falling curve',
    'These points do not make a curve that falls with the flow.',
    'Check which suction belongs to which hole.',
  ],
  'particles.counting': () => [
    'Counting time needed',
    'A count needs its time and the flow of the counter.',
    'Type the counting times and the flow of the counter.',
  ],
  'particles.whole': () => [
    'Whole particles',
    'A count is a whole number, 0 or more.',
    'Type the count that the counter shows. Do not type a rate.',
  ],
  'particles.both': () => [
    'Both counts needed',
    'Take at least one count of the room and one of the exhaust.',
    'Count the room first, then the exhaust.',
  ],
  'detail.stage': () => ['Which stage?', 'Choose the stage this was read across.', 'Choose it from the list.'],
  'detail.word': () => ['What was it?', 'Choose what was felt or seen.', 'One of the words on the buttons.'],
  'mass.new': () => [
    'Weight of a new one',
    'A filter is judged against the weight of a new one.',
    'Weigh one from the shelf.',
  ],
  'air.state': () => [
    'Air outside the range',
    'Temperature, humidity or pressure is outside what a workshop meets.',
    '-30 to 60 °C, 0 to 100 %, 50 to 110 kPa (altitude -500 to 5000 m).',
  ],
  'air.sea-level-pressure': (f) => [
    'Reduced to sea level?',
    `${fixed(Number(f['pressurePa']) / 1000, 1)} kPa at ${whole(f['altitudeM'])} m looks like a weather report reduced to sea level.`,
    'Type the pressure read on the spot, or leave it empty to use the altitude.',
  ],
  'instrument.unknown': () => [
    'Unknown instrument',
    'That instrument is not on the list.',
    'Choose another, or "not listed".',
  ],
  'instrument.wrong-quantity': (f) => [
    'Wrong instrument',
    `That instrument reads ${quantity(f['reads'])}; this method needs ${quantity(f['wanted'])}.`,
    'Choose the method first, then the instrument.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;
