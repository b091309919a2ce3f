import { toDigits } from '@/core/units';
import type { FailureCode, FactValue } from '@/core/failure/failure';
import { NO_CARE_WORDS, REFERRAL_WORDS } from '../dust';
import { entry } from '../words';

type Facts = Readonly<Record<string, FactValue>>;
type Text = readonly [title: string, sentence: string, hint: string];

const text = (fact: FactValue | undefined): string => String(fact ?? '');
const percent = (fact: FactValue | undefined): string => `${toDigits(100 * Number(fact), 3)} %`;

const NOT_OFFERED: Readonly<Record<string, string>> = {
  takesOutFilter: 'Running with a filter taken out is for plain dust only, and only behind another filter.',
  openInDust: 'Keep the cover on in this dust: do not run it open.',
  smellsDust: 'Do not smell at the outlet with this dust.',
  nothingHolds: 'Its essential filter is not in: do not run it until it is.',
};

/** What dust, proof and care can refuse. */
export const DUST_TEXTS = {
  'dust.refused': (f) => [
    'Stop',
    `This machine has collected ${text(f['what'])}. Do not run it, test it or open it; Moorwind gives no guidance on it.`,
    entry(REFERRAL_WORDS, text(f['instead'])) ?? 'Leave it closed and ask.',
  ],
  'dust.confirm': (f) => [
    'Is it that?',
    `"${text(f['words'])}" looks like ${text(f['names'])}.`,
    'Say yes or no to each: it decides how the machine is opened.',
  ],
  'dust.open': () => [
    'To be answered',
    'It is not clear what this machine has collected.',
    'Treat it as contained until the questions are answered.',
  ],
  'dust.reason': (f) => [
    'A reason is needed',
    `The register says ${text(f['level'])} for this; to open it as less, give a reason and your initials.`,
    'Raising it needs none.',
  ],
  'dust.name': () => ['No name', 'A dust needs a name.', 'Also give the words people type for it.'],
  'dust.lower': (f) => [
    'Not lower',
    `${text(f['name'])} is ${text(f['level'])} in the register: you can raise it, not lower it.`,
    'It can be lowered on one machine, with a reason and initials.',
  ],
  'dust.refusal': (f) => [
    'Stays refused',
    `${text(f['name'])} is always refused.`,
    'Add a dust of your own beside it.',
  ],
  'dust.shipped': (f) => [
    'Stays in',
    `${text(f['name'])} ships with Moorwind and stays in the register.`,
    'Add to it, or raise it.',
  ],
  'dust.word': (f) => [
    'Word missing',
    `"${text(f['word'])}" belongs to this dust and cannot be removed.`,
    'Add words of your own beside it.',
  ],
  'dust.unknown': () => [
    'Unknown dust',
    'That dust is not in the register.',
    'Choose one from the register, or answer the questions.',
  ],
  'dust.contractor': () => [
    'Contractor and paper number',
    'Give the contractor and the number of the paper.',
    'Without it, walk the decontamination step by step.',
  ],
  'dust.since': () => [
    'In the future',
    'That date is in the future.',
    'Type the day it was collected, or leave it empty.',
  ],
  'case.take-out': () => [
    'Not in this dust',
    'Taking parts out and running the machine is for plain dust only.',
    'Read the pressure across each stage, or swap in a new part, instead.',
  ],
  'case.not-offered': (f) => [
    'Not on this machine, in this dust',
    NOT_OFFERED[text(f['because'])] ?? 'That test is not made here.',
    'Choose another test.',
  ],
  'part.not-cleanable': (f) => [
    'Not cleaned',
    `The ${text(f['stage'])} ${entry(NO_CARE_WORDS, text(f['because'])) ?? 'is not cleaned'}.`,
    'Fit a new one.',
  ],
  'change.how': () => [
    'How was it done?',
    'On this dust, a change done without the guide needs: how it was contained, and by whom.',
    'It is marked in the file.',
  ],
  'train.face': (f) => [
    'No face velocity',
    `A face velocity of ${text(f['faceMs'])} m/s moves nothing through a filter.`,
    'Type one above zero, or leave it out.',
  ],
  'train.claim': (f) => [
    'Check the particle size',
    `${percent(f['efficiency'])} at ${text(f['sizeUm'])} µm is not a rating of a vacuum filter.`,
    'HEPA means 99.97 % at 0.3 µm. Read it off the element again.',
  ],
  'integrity.no-challenge': () => [
    'Nothing counted in the room',
    'Without particles in the room a count behind the filter shows nothing.',
    'Count the room first.',
  ],
  'integrity.not-shown': (f) => [
    'The count cannot tell',
    `Up to ${percent(f['high'])} may pass; a count of this length could show no better than ${percent(f['best'])}. It screens at ${percent(f['figure'])}.`,
    'Count longer, or have it tested.',
  ],
  'integrity.percent': () => [
    'What passed?',
    'A penetration is between 0 and 100 %.',
    'Type the figure of the certificate.',
  ],
  'integrity.no-count': () => [
    'No count',
    'No particle count from 0.3 or 0.5 µm of this machine since its seat was last opened.',
    'Count the room, then the exhaust.',
  ],
  'integrity.not-due': (f) => [
    'Not due here',
    `That test is not due on the ${text(f['stage'])} of this machine.`,
    'Reload the page.',
  ],
  'examination.future': () => [
    'Not yet',
    'An examination cannot be logged for a future date.',
    'Choose today or an earlier day.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;
