import type { Failure, FailureCode, FactValue } from '@/core/failure/failure';
import { type QuantityKind, siUnit } from '@/core/units';
import { QUANTITY_WORDS } from './words';

export interface Problem {
  readonly code: string;
  readonly path: string;
  readonly title: string;
  readonly sentence: string;
  readonly hint: string;
}

type Facts = Readonly<Record<string, FactValue>>;
type Text = readonly [title: string, sentence: string, hint: string];

const quantity = (fact: FactValue | undefined): string => QUANTITY_WORDS[String(fact)] ?? 'quantity';
const whole = (fact: FactValue | undefined): string => String(Math.round(Number(fact)));
const text = (fact: FactValue | undefined): string => String(fact ?? '');
const inWords = (f: Facts, key: string): string => {
  const value = Number(f[key]);
  return f['kind'] === 'length' ? `${Number((value * 1000).toPrecision(4))} mm` : `${Number(value.toPrecision(4))} ${siUnit(f['kind'] as QuantityKind)}`;
};

const QUANTITY_TEXTS = {
  'quantity.empty': (f) => ['Nothing typed', `Type a ${quantity(f['kind'])}.`, 'A number with its unit, such as 61 cfm.'],
  'quantity.too-long': (f) => ['Too long', `That entry has ${text(f['length'])} characters.`, `One number and one unit, at most ${text(f['most'])} characters.`],
  'quantity.not-a-number': (f) => ['Not a number', `"${text(f['typed'])}" does not start with a number.`, 'Write it like 61 cfm, 29,5 L/s or 92 inH2O.'],
  'quantity.ambiguous-comma': (f) => ['One comma, two meanings', `"${text(f['typed'])}" could be thousands or decimals.`, 'Leave the comma out for thousands, or use a point for decimals.'],
  'quantity.unknown-unit': (f) => ['Unknown unit', `"${text(f['unit'])}" is not a unit of ${quantity(f['wanted'])} that Moorwind knows.`, 'The units it takes are listed under the field.'],
  'quantity.wrong-unit': (f) => ['Wrong kind of unit', `"${text(f['unit'])}" is a unit of ${quantity(f['is'])}; this field takes a ${quantity(f['wanted'])}.`, 'Check the method chosen, or the unit on the meter.'],
  'quantity.pounds': (f) => ['Pounds are no suction', `${text(f['number'])} pounds is a weight; people who say it of suction mean inches of water.`, 'Read the gauge again and type inH2O, kPa or psi.'],
  'quantity.unit-missing': (f) => ['Unit missing', `Say in which unit this ${quantity(f['kind'])} is.`, 'The unit typed last is kept for the next reading.'],
  'quantity.out-of-range': (f) => ['Out of range', `A ${quantity(f['kind'])} of ${inWords(f, 'value')} is outside ${inWords(f, 'low')} to ${inWords(f, 'high')}.`, 'Check the number and its unit.'],
  'quantity.negative': (f) => ['Below zero', `${text(f['number'])} ${text(f['unit'])} is below zero; air does not flow backwards through a running machine.`, 'Turn the probe round, or zero the meter.'],
  'suction.impossible': (f) => ['More than the air can give', `${text(f['number'])} ${text(f['unit'])} is at or above the pressure of the air itself, ${(Number(f['barometricPa']) / 1000).toFixed(1)} kPa here. No machine sucks that hard.`, 'Technicians who say "pounds" usually read inches of water: try inH2O.'],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;

const MEASURE_TEXTS = {
  'readings.none': () => ['No reading yet', 'There is nothing to record.', 'Type at least one reading; three or more for a verdict.'],
  'readings.too-many': (f) => ['Too many readings', `${text(f['count'])} readings in one test.`, `At most ${text(f['most'])}; start a second test.`],
  'readings.all-struck': () => ['Every reading is struck out', 'No reading is left to count.', 'Take one more, or leave without recording.'],
  'bore.missing': () => ['Bore needed', 'An anemometer reads velocity: the bore of its pipe makes it a flow.', 'Measure the inside diameter of the test pipe.'],
  'profile.range': (f) => ['Profile factor', `A profile factor of ${text(f['factor'])} is outside ${text(f['low'])} to ${text(f['high'])}.`, '0.82 by the 1/7-power law, 0.9 by ACGIH practice.'],
  'traverse.plan': () => ['Duct needed', 'A traverse needs the duct it crosses.', 'Say its shape and inside sizes.'],
  'traverse.incomplete': (f) => ['Points missing', `Traverse ${text(f['traverse'])} has ${text(f['have'])} of ${text(f['points'])} points.`, 'Take the missing points; a traverse counts whole.'],
  'traverse.repeated-point': (f) => ['A point twice', `Traverse ${text(f['traverse'])} has one point twice.`, 'Strike out one of the two.'],
  'pitot.negative-point': (f) => ['Backwards at a point', `${text(f['number'])} ${text(f['unit'])} is a negative velocity pressure: there the air turns, or the tube points the wrong way.`, 'Turn the tube; if the air stands still there, type 0.'],
  'orifice.missing': () => ['Orifice needed', 'A plate needs the diameter of its hole.', 'Measure the hole; a worn edge reads wrong.'],
  'orifice.too-large': () => ['Orifice too large', 'The hole is not smaller than the pipe it sits in.', 'Check both diameters and their units.'],
  'orifice.pressure': () => ['Beyond the formula', 'The pressure drop is more than a quarter of the air pressure.', 'Use a larger hole.'],
  'curve.too-few': (f) => ['Too few orifices', `A curve needs ${text(f['need'])} different openings; there are ${text(f['have'])}.`, 'Sealed counts as one of them.'],
  'curve.no-fit': () => ['No falling curve', 'These points do not make a curve that falls with the flow.', 'Check which suction belongs to which hole.'],
  'particles.counting': () => ['Counting time needed', 'A count without its time and air flow is no rate.', 'Type the counting times and the flow of the counter.'],
  'particles.whole': () => ['Whole particles', 'A count is a whole number, 0 or more.', 'Type what the counter shows, not a rate.'],
  'particles.both': () => ['Both counts needed', 'The exhaust is judged against the room: one count of each at least.', 'Count the room first, then the exhaust.'],
  'detail.stage': () => ['Which stage?', 'Say across which stage this was read.', 'Choose it from the list.'],
  'detail.word': () => ['What was it?', 'Choose what was felt or seen.', 'One of the words on the buttons.'],
  'mass.new': () => ['Weight of a new one', 'A filter is judged against the weight of a new one.', 'Weigh one from the shelf.'],
  'air.state': () => ['Not air as it is found', 'Temperature, humidity or pressure is outside what a workshop meets.', '-30 to 60 °C, 0 to 100 %, 50 to 110 kPa (altitude -500 to 5000 m).'],
  'air.sea-level-pressure': (f) => ['Reduced to sea level?', `${(Number(f['pressurePa']) / 1000).toFixed(1)} kPa at ${whole(f['altitudeM'])} m looks like a weather report reduced to sea level.`, 'Type the pressure read on the spot, or leave it empty to use the altitude.'],
  'instrument.unknown': () => ['Unknown instrument', 'That instrument is not on the list.', 'Choose another, or "not listed".'],
  'instrument.wrong-quantity': (f) => ['Wrong instrument', `That instrument reads ${quantity(f['reads'])}; this method needs ${quantity(f['wanted'])}.`, 'Choose the method first, then the instrument.'],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;

const RECORD_TEXTS = {
  'path.empty': () => ['Empty path', 'This machine has no stages yet.', 'Add its stages from tool to room.'],
  'path.no-fan': () => ['No fan', 'This air path has no fan.', 'Put the fan where the motor is.'],
  'path.two-fans': () => ['Two fans', 'This air path has two fans.', 'Leave the one that moves the air.'],
  'date.future': (f) => ['In the future', `${text(f['day'])} has not come yet.`, 'Type the day the work was done.'],
  'date.invalid': () => ['No such moment', 'That is not a day and time that Moorwind can read.', 'Choose it from the calendar, or leave it empty for now.'],
  'date.before-service': (f) => ['Before its first day', `${text(f['day'])} is before this machine came into service on ${text(f['inServiceOn'])}.`, 'Check the day and the machine.'],
  'machine.unknown': (f) => ['Unknown machine', `There is no machine "${text(f['tag'])}" here.`, 'Press / and type the tag on its label.'],
  'stage.unknown': (f) => ['Not on this machine', `${text(f['tag'])} has no such stage.`, 'Choose a stage on the strip.'],
  'stage.not-changeable': (f) => ['Stays in', `The ${text(f['stage'])} is not a part to change.`, 'Choose a bag or a filter on the strip.'],
  'part.unknown': () => ['Unknown part', 'That part is not in the catalogue.', 'Choose one from the list.'],
  'part.wrong-for-stage': (f) => ['Does not fit', `That part does not belong in the ${text(f['stage'])}.`, `${text(f['fits'])} fits.`],
  'test.unknown': () => ['Unknown test', 'That test is not on this machine.', 'Open the machine\'s file and choose it there.'],
  'test.wrong-machine': () => ['Another machine\'s test', 'The test before the change is not one of this machine.', 'Choose one of this machine\'s tests, or none.'],
  'change.unknown': () => ['Unknown change', 'That change is not on this machine.', 'Open the machine\'s file and choose it there.'],
  'record.superseded': () => ['Already corrected', 'Somebody has corrected this record since you opened it.', 'Open the file again and correct the newest one.'],
  'count.range': () => ['Count', 'A count is a whole number, zero or more.', 'Count the pieces on the shelf, not the packs.'],
  'action.reused': () => ['Sent twice, but not the same', 'This entry was recorded already, with other contents.', 'Open the machine\'s file to see what was recorded.'],
  'action.busy': () => ['Not reached', 'The server did not answer; nothing was lost here.', 'Try again: the same entry is never recorded twice.'],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;

const DOOR_TEXTS = {
  'text.missing': () => ['Missing', 'This is needed.', 'Fill it in.'],
  'text.too-long': (f) => ['Too long', 'That is longer than fits.', `At most ${text(f['most'])}.`],
  'field.invalid': () => ['Not understood', 'This field holds something Moorwind cannot read.', 'Check it and send again.'],
  'request.not-json': () => ['JSON wanted', 'This address takes application/json.', 'Send the right content type.'],
  'request.malformed': () => ['Malformed JSON', 'The request is not readable as JSON.', 'Check it and send again.'],
  'request.too-large': (f) => ['Too large', 'The request is larger than any honest entry.', `At most ${text(f['most'])} bytes.`],
  'request.method': () => ['Not that way', 'This address does not take that method.', 'See the documentation of the address.'],
  'request.host': () => ['Unknown host', 'This server does not answer to that name.', 'Open it under the address it printed at the start.'],
  'page.unknown': () => ['Nothing here', 'There is no such page.', 'Go to the round, or press / and type a tag.'],
  'calc.unknown': (f) => ['Unknown calculation', `There is no calculation "${text(f['name'])}".`, 'See calc --list.'],
  'server.bug': () => ['Something broke', 'Moorwind made a mistake; nothing was half-written.', 'Try again. If it stays, note what you did and report it.'],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;

const TEXTS: Record<FailureCode, (f: Facts) => Text> = { ...QUANTITY_TEXTS, ...MEASURE_TEXTS, ...RECORD_TEXTS, ...DOOR_TEXTS };

/** The sentence of a failure: the same on the form, from the endpoint and on the command line. */
export const problemOf = (f: Failure): Problem => {
  const [title, sentence, hint] = TEXTS[f.code](f.facts);
  return { code: f.code, path: f.path, title, sentence, hint };
};

export const problemsOf = (failures: readonly Failure[]): readonly Problem[] => failures.map(problemOf);
