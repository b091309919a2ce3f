import { DUST_TEXTS } from './failures-dust';
import { INTEGRITY_WORDS } from './job';
import type { Failure, FailureCode, FactValue } from '@/core/failure/failure';
import { type QuantityKind, siUnit } from '@/core/units';
import { entry, QUANTITY_WORDS } from './words';

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
  return f['kind'] === 'length'
    ? `${Number((value * 1000).toPrecision(4))} mm`
    : `${Number(value.toPrecision(4))} ${siUnit(f['kind'] as QuantityKind)}`;
};

const QUANTITY_TEXTS = {
  'quantity.empty': (f) => [
    'Nothing typed',
    `Type a ${quantity(f['kind'])}.`,
    'A number with its unit, such as 61 cfm.',
  ],
  'quantity.too-long': (f) => [
    'Too long',
    `That entry has ${text(f['length'])} characters.`,
    `One number and one unit, at most ${text(f['most'])} characters.`,
  ],
  'quantity.not-a-number': (f) => [
    'Not a number',
    `"${text(f['typed'])}" does not start with a number.`,
    'Write it like 61 cfm, 29,5 L/s or 92 inH2O.',
  ],
  'quantity.ambiguous-comma': (f) => [
    'One comma, two meanings',
    `"${text(f['typed'])}" could be thousands or decimals.`,
    'Leave the comma out for thousands, or use a point for decimals.',
  ],
  'quantity.unknown-unit': (f) => [
    'Unknown unit',
    `"${text(f['unit'])}" is not a unit of ${quantity(f['wanted'])} that Moorwind knows.`,
    'The units it takes are listed under the field.',
  ],
  'quantity.wrong-unit': (f) => [
    'Wrong kind of unit',
    `"${text(f['unit'])}" is a unit of ${quantity(f['is'])}; this field takes a ${quantity(f['wanted'])}.`,
    'Check the method chosen, or the unit on the meter.',
  ],
  'quantity.pounds': (f) => [
    'Pounds are no suction',
    `${text(f['number'])} pounds is a weight; people who say it of suction mean inches of water.`,
    'Read the gauge again and type inH2O, kPa or psi.',
  ],
  'quantity.unit-missing': (f) => [
    'Unit missing',
    `Say in which unit this ${quantity(f['kind'])} is.`,
    'The unit typed last is kept for the next reading.',
  ],
  'quantity.out-of-range': (f) => [
    'Out of range',
    `A ${quantity(f['kind'])} of ${inWords(f, 'value')} is outside ${inWords(f, 'low')} to ${inWords(f, 'high')}.`,
    'Check the number and its unit.',
  ],
  'quantity.negative': (f) => [
    'Below zero',
    `${text(f['number'])} ${text(f['unit'])} is below zero; air does not flow backwards through a running machine.`,
    'Turn the probe round, or zero the meter.',
  ],
  'suction.impossible': (f) => [
    'More than the air can give',
    `${text(f['number'])} ${text(f['unit'])} is at or above the pressure of the air itself, ${(Number(f['barometricPa']) / 1000).toFixed(1)} kPa here. No machine sucks that hard.`,
    'Technicians who say "pounds" usually read inches of water: try inH2O.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;

const MEASURE_TEXTS = {
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
  'traverse.plan': () => ['Duct needed', 'A traverse needs the duct it crosses.', 'Say its shape and inside sizes.'],
  'traverse.incomplete': (f) => [
    'Points missing',
    `Traverse ${text(f['traverse'])} has ${text(f['have'])} of ${text(f['points'])} points.`,
    'Take the missing points; a traverse counts whole.',
  ],
  'traverse.repeated-point': (f) => [
    'A point twice',
    `Traverse ${text(f['traverse'])} has one point twice.`,
    'Strike out one of the two.',
  ],
  'pitot.negative-point': (f) => [
    'Backwards at a point',
    `${text(f['number'])} ${text(f['unit'])} is a negative velocity pressure: there the air turns, or the tube points the wrong way.`,
    'Turn the tube; if the air stands still there, type 0.',
  ],
  'orifice.missing': () => [
    'Orifice needed',
    'A plate needs the diameter of its hole.',
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
    'A count without its time and air flow is no rate.',
    'Type the counting times and the flow of the counter.',
  ],
  'particles.whole': () => [
    'Whole particles',
    'A count is a whole number, 0 or more.',
    'Type what the counter shows, not a rate.',
  ],
  'particles.both': () => [
    'Both counts needed',
    'The exhaust is judged against the room: one count of each at least.',
    'Count the room first, then the exhaust.',
  ],
  'detail.stage': () => ['Which stage?', 'Say across which stage this was read.', 'Choose it from the list.'],
  'detail.word': () => ['What was it?', 'Choose what was felt or seen.', 'One of the words on the buttons.'],
  'mass.new': () => [
    'Weight of a new one',
    'A filter is judged against the weight of a new one.',
    'Weigh one from the shelf.',
  ],
  'air.state': () => [
    'Not air as it is found',
    'Temperature, humidity or pressure is outside what a workshop meets.',
    '-30 to 60 °C, 0 to 100 %, 50 to 110 kPa (altitude -500 to 5000 m).',
  ],
  'air.sea-level-pressure': (f) => [
    'Reduced to sea level?',
    `${(Number(f['pressurePa']) / 1000).toFixed(1)} kPa at ${whole(f['altitudeM'])} m looks like a weather report reduced to sea level.`,
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

const percent = (fact: FactValue | undefined): string => `${Number((100 * Number(fact)).toPrecision(3))} %`;
const litres = (fact: FactValue | undefined): string => `${Number((1000 * Number(fact)).toPrecision(3))} L/s`;

const JOB_REFUSALS: Readonly<Record<string, string>> = {
  ended: 'The job is finished or was given up.',
  notHolder: 'Somebody else has this job in hand.',
  notNext: 'That is not the step that is next.',
  isCheck: 'This step is a question: it is answered, not ticked off.',
  noCheck: 'This step is no question.',
  notBack: 'There is no way back to that step.',
  noTurn: 'At this step nothing is held that could go back in.',
  wet: 'Its drying time is not up yet: answer when it is, or leave the question out with the reason.',
  unfinished: 'Steps are left, or a question is not answered.',
  openStill: 'The machine still stands open: close it first.',
  partOut: 'A part has no fate yet: fitted, returned, put back or disposed of.',
};

const OPEN_WORDS: Readonly<Record<string, string>> = {
  complaintNotBack: "the complaint's own measure is not back in its band at its own place since the last repair",
  noRootCause: 'nobody has said what the root cause was ("not found" is an answer)',
  missingUnrecorded: 'a stage is out of the machine, neither put back nor recorded as missing',
  noFollowUp: 'this root cause came back: say what will keep it from coming again',
  trialOpen: 'a new part is still on trial: keep it, or put the original back',
};

const sayOpen = (reasons: string): string => {
  const said =
    reasons
      .split(' ')
      .flatMap((r) => OPEN_WORDS[r] ?? [])
      .join('; ') || 'something of it is still open';
  return `${said.charAt(0).toUpperCase()}${said.slice(1)}.`;
};

const PATH_TEXTS = {
  'path.area': () => [
    'No area',
    'A filter or opening without area lets no air through.',
    'Type its area; for pleats, the unfolded one.',
  ],
  'path.bore': () => [
    'No bore',
    'A hose, duct or fitting needs an inside diameter above zero.',
    'Measure it with a calliper; 5 m is the most Moorwind takes.',
  ],
  'path.negative': (f) => [
    'Below zero',
    `${text(f['field'])} is ${text(f['value'])}: nothing in an air path pushes by itself but the fan.`,
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
    'Leave a single way as a plain stage.',
  ],
  'path.leak': () => [
    'Leak',
    'A leak is an area of zero or more at each node, one more node than stages.',
    'Type the leak in mm²; 12 mm² is a usual lid seal.',
  ],
  'path.node': (f) => [
    'No such place',
    `Place ${text(f['node'])} is not one this path can be entered or closed at (0 to ${text(f['most'])}).`,
    'Enter before the fan; close behind it.',
  ],
  'path.fan': (f) => [
    'Fan',
    `A fan with ${text(f['value'])} here cannot lift air.`,
    'Type its sealed suction and its free flow, both above zero.',
  ],
  'path.fan-rises': () => [
    'Rising fan curve',
    'This fan curve rises with the flow; no real one does over its range.',
    'Check which suction belongs to which flow.',
  ],
  'path.drive': (f) => [
    'Drive',
    `The fan is driven at ${text(f['value'])} of its nominal, which is outside what the fan laws hold for.`,
    'Check voltage or supply pressure.',
  ],
  'path.no-point': (f) => [
    'No working point',
    `The fan cannot move that much: free of every resistance it moves ${litres(f['freeM3s'])}.`,
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
    `The ${text(f['fine'])} stands before the ${text(f['coarse'])}: it would catch what the ${text(f['coarse'])} is for, and be spent in days.`,
    `Put the ${text(f['coarse'])} before it.`,
  ],
  'path.gas-first': (f) => [
    'Gas stage before the filter',
    `The ${text(f['gas'])} stands before the ${text(f['filter'])}: dust would clog the carbon, which cannot be cleaned.`,
    'Put the gas stage behind the finest filter.',
  ],
  'path.paper-wet': (f) => [
    'Paper in the wet',
    `The ${text(f['stage'])} is ${text(f['medium'])}: it comes apart in wet pick-up.`,
    'Fit foam or mesh for wet work, or clear the wet set.',
  ],
  'path.mouth-late': (f) => [
    'Tool behind the hose',
    `The ${text(f['stage'])} stands where air no longer comes from the room.`,
    'A nozzle, shroud or hood is the first stage of its way.',
  ],
  'path.exhaust-early': (f) => [
    'Exhaust before the fan',
    `The ${text(f['stage'])} stands before the fan.`,
    'Put it behind the fan, at the room.',
  ],
  'path.wye-first': () => [
    'Y without ways',
    'A Y joins what comes before it; nothing does.',
    'Put the tool (and its own hose) before the Y.',
  ],
  'path.too-long': (f) => ['Too many stages', `${text(f['have'])} stages in one path.`, `At most ${text(f['most'])}.`],
  'stage.name': () => [
    'Two of one name',
    'Two stages of this machine have the same name.',
    'Name them apart: "bag 1", "bag 2".',
  ],
  'stage.used': (f) => [
    'Still named by a rule',
    `A rule counts the changes of the ${text(f['stage'])}.`,
    'Take that rule off first, or mark the stage missing instead.',
  ],
  'edit.stale': () => [
    'Changed meanwhile',
    'Somebody changed this path since you opened it; nothing of yours was saved.',
    'Open the editor again and repeat the change.',
  ],
  'job.open': (f) => [
    'A job is under way',
    `Somebody (${text(f['holder'])}) is at work on this machine.`,
    'Take that job over, or finish it first.',
  ],
  'job.unknown': () => ['Unknown job', 'That job is not one of this machine.', 'Load the page again.'],
  'job.refused': (f) => [
    'Not now',
    JOB_REFUSALS[text(f['why'])] ?? 'That does not fit the job as it stands.',
    'Load the page again to see where it stands.',
  ],
  'job.not-yet': (f) => [
    'Not yet',
    `This is done only right after a change of the ${text(f['stage'])}.`,
    `Change the ${text(f['stage'])} first, on the same day.`,
  ],
  'job.no-stock': (f) => [
    'None on the shelf',
    `The ledger has no free ${text(f['part'])}.`,
    'If it is in your hand, say so and begin: a count settles the ledger later.',
  ],
  'job.untested': (f) => [
    'Not proven yet',
    `Still to be passed: ${text(f['tests'])
      .split(',')
      .map((t) => (entry(INTEGRITY_WORDS, t)?.name ?? t).toLowerCase())
      .join(', ')}.`,
    'Do the test, or leave it out with its reason: the class stays suspended.',
  ],
  'job.walk-it': () => [
    'Walk it',
    'This change is walked step by step, not logged on one sheet: the dust is contained, or the part carries the class.',
    'Begin it with the guide.',
  ],
  'photo.not-image': () => [
    'Not a picture',
    'That file is no picture that can be kept (JPEG, PNG or WebP).',
    'Take a photo, or choose another file.',
  ],
  'photo.too-large': (f) => [
    'Too large',
    `That picture is larger than ${whole(Number(f['most']) / 1_048_576)} MB.`,
    'Take it with a lower resolution.',
  ],
  'plan.past': () => [
    'A day gone by',
    'A change cannot be fixed on a day that is over.',
    'Choose today or a later day.',
  ],
  'away.backwards': () => ['Backwards', 'The last day away lies before the first.', 'Change one of the two days.'],
  'usage.future': () => [
    'Not yet',
    'Run hours of a day that has not come cannot be logged.',
    'Choose today or an earlier day.',
  ],
  'look.future': () => [
    'Not yet',
    'A look on a day that has not come cannot be logged.',
    'Choose today or an earlier day.',
  ],
  'order.unknown': () => ['Unknown order', 'That order is not under way.', 'Load the page again.'],
  'order.past': () => [
    'A day gone by',
    'An order cannot arrive on a day that is over.',
    'Choose today or a later day.',
  ],
  'rule.circular': () => [
    'Round in a ring',
    'These stages each go only after another, in a ring: none could ever be begun.',
    'Take one of the rules out.',
  ],
  'rule.range': () => ['Out of range', 'An interval is between one day and a hundred years.', 'Type another.'],
  'photo.unknown': () => ['No such photo', 'That photo is not kept here.', 'Go back to the job.'],
  'procedure.school': (f) => [
    'Not on this machine',
    `The ${text(f['stage'])} of this machine is not changed that way.`,
    `It can be done: ${text(f['allowed'])}.`,
  ],
  'case.open': () => [
    'A case is open',
    'This machine has a case that is not closed.',
    'Go on with that one, or hand it on first.',
  ],
  'case.unknown': () => [
    'Unknown case',
    'That case is not one of this machine.',
    'Open the machine again and choose Find.',
  ],
  'case.ended': () => ['Case ended', 'This case is closed or handed on; nothing more goes into it.', 'Open a new one.'],
  'case.event-unknown': () => [
    'Unknown line',
    'That line is not in this case, or was struck out before.',
    'Load the page again.',
  ],
  'case.not-done': (f) => ['Not done yet', sayOpen(text(f['reasons'])), 'The case stays open until that is done.'],
  'case.not-out': () => ['Not out', 'That stage is not out of the machine.', 'Load the page again.'],
  'case.trial': () => [
    'Trial part',
    'That does not fit where the new part is now: it goes in, comes back or stays by a step of its own.',
    'Load the page again.',
  ],
  'case.no-part': (f) => [
    'No spare',
    `No spare is kept for the ${text(f['stage'])}.`,
    'Choose another test, or give the stage its part in the machine editor.',
  ],
  'case.no-word': () => [
    'Not one of its outcomes',
    'That test does not give that.',
    'Choose one of the outcomes, or "I saw something else".',
  ],
  'case.change': () => [
    "Another stage's change",
    'That change is not one of this stage since the case was opened.',
    'Record the change of this stage first.',
  ],
  'edit.nothing': () => ['Nothing changed', 'The path is as it was.', 'Change something, or leave the editor.'],
  'calibration.one-point': (f) => [
    'One point is no curve',
    `These readings show ${text(f['have'])} working point; ${text(f['need'])} are needed to tell fan, leak and path apart.`,
    'Add a sealed suction, and a flow or a suction curve, as baseline.',
  ],
  'calibration.no-flow': () => [
    'No reading with flow',
    'Sealed readings alone say nothing of the path.',
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
    'No load that a filter can carry gives this reading.',
    'Look for a plug, a closed inlet, or a reading in other units.',
  ],
  'load.less-than-clean': () => [
    'Easier than clean',
    'More air passes than the clean path lets through.',
    'Look for a filter out, torn or not seated, or measure the baseline anew.',
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
    'A good seat lets by far less than 0.1 %.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;

const RECORD_TEXTS = {
  'path.empty': () => ['Empty path', 'This machine has no stages yet.', 'Add its stages from tool to room.'],
  'path.no-fan': () => ['No fan', 'This air path has no fan.', 'Put the fan where the motor is.'],
  'path.two-fans': () => ['Two fans', 'This air path has two fans.', 'Leave the one that moves the air.'],
  'date.future': (f) => ['In the future', `${text(f['day'])} has not come yet.`, 'Type the day the work was done.'],
  'date.invalid': () => [
    'No such moment',
    'That is not a day and time that Moorwind can read.',
    'Choose it from the calendar, or leave it empty for now.',
  ],
  'date.before-service': (f) => [
    'Before its first day',
    `${text(f['day'])} is before this machine came into service on ${text(f['inServiceOn'])}.`,
    'Check the day and the machine.',
  ],
  'machine.unknown': (f) => [
    'Unknown machine',
    `There is no machine "${text(f['tag'])}" here.`,
    'Press / and type the tag on its label.',
  ],
  'machine.tag-taken': (f) => [
    'Tag taken',
    `There is a machine ${text(f['tag'])} already.`,
    'Give this one a tag of its own.',
  ],
  'stage.unknown': (f) => [
    'Not on this machine',
    `${text(f['tag'])} has no such stage.`,
    'Choose a stage on the strip.',
  ],
  'stage.not-changeable': (f) => [
    'Stays in',
    `The ${text(f['stage'])} is not a part to change.`,
    'Choose a bag or a filter on the strip.',
  ],
  'part.unknown': () => ['Unknown part', 'That part is not in the catalogue.', 'Choose one from the list.'],
  'part.wrong-for-stage': (f) => [
    'Does not fit',
    `That part does not belong in the ${text(f['stage'])}.`,
    `${text(f['fits'])} fits.`,
  ],
  'test.unknown': () => [
    'Unknown test',
    'That test is not on this machine.',
    "Open the machine's file and choose it there.",
  ],
  'test.wrong-machine': () => [
    "Another machine's test",
    'The test before the change is not one of this machine.',
    "Choose one of this machine's tests, or none.",
  ],
  'change.unknown': () => [
    'Unknown change',
    'That change is not on this machine.',
    "Open the machine's file and choose it there.",
  ],
  'record.superseded': () => [
    'Already corrected',
    'Somebody has corrected this record since you opened it.',
    'Open the file again and correct the newest one.',
  ],
  'count.range': () => [
    'Count',
    'A count is a whole number, zero or more.',
    'Count the pieces on the shelf, not the packs.',
  ],
  'action.reused': () => [
    'Sent twice, but not the same',
    'This entry was recorded already, with other contents.',
    "Open the machine's file to see what was recorded.",
  ],
  'action.busy': () => [
    'Not reached',
    'The server did not answer; nothing was lost here.',
    'Try again: the same entry is never recorded twice.',
  ],
  'action.not-reloaded': () => [
    'This page is out of date',
    'The page could not be brought up to date after the last entry.',
    'Load the page again before you go on: it shows what is on record.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;

const DOOR_TEXTS = {
  'text.missing': () => ['Missing', 'This is needed.', 'Fill it in.'],
  'text.too-long': (f) => ['Too long', 'That is longer than fits.', `At most ${text(f['most'])}.`],
  'field.invalid': () => [
    'Not understood',
    'This field holds something Moorwind cannot read.',
    'Check it and send again.',
  ],
  'request.not-json': () => ['JSON wanted', 'This address takes application/json.', 'Send the right content type.'],
  'request.malformed': () => ['Malformed JSON', 'The request is not readable as JSON.', 'Check it and send again.'],
  'request.too-large': (f) => [
    'Too large',
    'The request is larger than any honest entry.',
    `At most ${text(f['most'])} bytes.`,
  ],
  'request.method': () => [
    'Not that way',
    'This address does not take that method.',
    'See the documentation of the address.',
  ],
  'request.host': () => [
    'Unknown host',
    'This server does not answer to that name.',
    'Open it under the address it printed at the start.',
  ],
  'page.unknown': () => ['Nothing here', 'There is no such page.', 'Go to the round, or press / and type a tag.'],
  'calc.unknown': (f) => ['Unknown calculation', `There is no calculation "${text(f['name'])}".`, 'See calc --list.'],
  'server.bug': () => [
    'Something broke',
    'Moorwind made a mistake; nothing was half-written.',
    'Try again. If it stays, note what you did and report it.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;

const TEXTS: Record<FailureCode, (f: Facts) => Text> = {
  ...QUANTITY_TEXTS,
  ...MEASURE_TEXTS,
  ...PATH_TEXTS,
  ...RECORD_TEXTS,
  ...DUST_TEXTS,
  ...DOOR_TEXTS,
};

/** The sentence of a failure: the same on the form, from the endpoint and on the command line. */
export const problemOf = (f: Failure): Problem => {
  const [title, sentence, hint] = TEXTS[f.code](f.facts);
  return { code: f.code, path: f.path, title, sentence, hint };
};

export const problemsOf = (failures: readonly Failure[]): readonly Problem[] => failures.map(problemOf);
