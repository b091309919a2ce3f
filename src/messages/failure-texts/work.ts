import type { FailureCode } from '@/core/failure/failure';
import { INTEGRITY_WORDS } from '../integrity';
import { entry } from '../words';
import { type Facts, type Text, whole, text } from './facts';

const JOB_REFUSALS: Readonly<Record<string, string>> = {
  ended: 'The job is finished or was given up.',
  notHolder: 'Somebody else has this job in hand.',
  notNext: 'That is not the next step.',
  isCheck: 'This step is a question: it is answered, not ticked off.',
  noCheck: 'This step is not a question.',
  notBack: 'You cannot go back to that step.',
  noTurn: 'At this step you have not kept an old part to put back.',
  wet: 'The drying time is not up yet. Answer when it is, or leave the question out with a reason.',
  unfinished: 'There are steps left, or a question is not answered.',
  openStill: 'The machine is still open: close it first.',
  partOut: 'Account for all parts first: fitted, returned, put back or disposed of.',
};

const OPEN_WORDS: Readonly<Record<string, string>> = {
  complaintNotBack: 'the complaint reading, repeated at the same place, is not back in its range since the last repair',
  noRootCause: 'no root cause given ("not found" is an answer)',
  missingUnrecorded: 'a stage is out of the machine and not recorded as missing',
  noFollowUp: 'this root cause came back: say what will stop it coming back again',
  trialOpen: 'a new part is still on trial: keep it, or put the original back',
};

const sayOpen = (reasons: string): string => {
  const said =
    reasons
      .split(' ')
      .flatMap((r) => OPEN_WORDS[r] ?? [])
      .join('; ') || 'something is still open';
  return `${said.charAt(0).toUpperCase()}${said.slice(1)}.`;
};

/** Refusals of a job, a case, the plan or an edit. */
export const WORK_TEXTS = {
  'edit.stale': () => [
    'Changed meanwhile',
    'Somebody changed this path since you opened it. Your changes were not saved.',
    'Open the editor again and repeat the change.',
  ],
  'demand.too-large': (f) => [
    'Too many pieces',
    `The demand of a lead time, or its spread, is beyond ${text(f['most'])} pieces.`,
    'Check the rate a day, the lead time and their spreads.',
  ],
  'job.open': (f) => [
    'A job is under way',
    `Somebody (${text(f['holder'])}) is at work on this machine.`,
    'Take that job over, or finish it first.',
  ],
  'job.unknown': () => ['Unknown job', 'That job is not one of this machine.', 'Reload the page.'],
  'job.refused': (f) => [
    'Not now',
    JOB_REFUSALS[text(f['why'])] ?? 'The job is at another step; this does not fit.',
    'Reload the page to see its state.',
  ],
  'job.not-yet': (f) => [
    'Not yet',
    `This is done only right after a change of the ${text(f['stage'])}.`,
    `Change the ${text(f['stage'])} first, on the same day.`,
  ],
  'job.no-stock': (f) => [
    'Out of stock',
    `No free ${text(f['part'])} in stock.`,
    'If you have one in your hand, tick that and begin. A count corrects the stock later.',
  ],
  'job.untested': (f) => [
    'Not tested yet',
    `Still to pass: ${text(f['tests'])
      .split(',')
      .map((t) => (entry(INTEGRITY_WORDS, t)?.name ?? t).toLowerCase())
      .join(', ')}.`,
    'Do the test, or leave it out with a reason: the class then stays suspended.',
  ],
  'job.walk-it': () => [
    'Step by step',
    'Do this change step by step, not on the short form: the dust is contained, or the part carries the class.',
    'Begin it with the guide.',
  ],
  'photo.not-image': () => [
    'Not a picture',
    'That file is not a JPEG, PNG or WebP picture.',
    'Take a photo, or choose another file.',
  ],
  'photo.too-large': (f) => [
    'Too large',
    `That picture is larger than ${whole(Number(f['most']) / 1_048_576)} MB.`,
    'Take it with a lower resolution.',
  ],
  'crew.unknown': () => [
    'Person not in the plan',
    'This person is not on file, or does not record work.',
    'Choose another active person; a lead adds people on the page People.',
  ],
  'plan.past': () => ['Day in the past', 'That date is in the past.', 'Choose today or a later day.'],
  'away.backwards': () => ['Backwards', 'The last day away lies before the first.', 'Change one of the two days.'],
  'usage.least': () => [
    'Too few',
    'A day has no run hours, or three minutes and more, up to 24 hours.',
    'Type 0 for a day it did not run.',
  ],
  'look.least': () => ['Too little', 'A bag is empty, or a hundredth full and more.', 'Type 0 for an empty one.'],
  'usage.future': () => [
    'In the future',
    'Run hours cannot be logged for a future date.',
    'Choose today or an earlier day.',
  ],
  'look.future': () => [
    'In the future',
    'A fill check cannot be logged for a future date.',
    'Choose today or an earlier day.',
  ],
  'order.unknown': () => ['Unknown order', 'That order is not under way.', 'Reload the page.'],
  'order.past': () => ['Day in the past', 'That arrival date is in the past.', 'Choose today or a later day.'],
  'rule.circular': () => [
    'Rules in a circle',
    'Each of these stages waits for another, in a circle: none could ever be changed.',
    'Remove one of the rules.',
  ],
  'rule.range': () => [
    'Out of range',
    'A limit is at least a day, half a run hour, a twentieth full, or 1 % of the flow.',
    'Type a larger one.',
  ],
  'photo.too-many': (f) => [
    'Enough photos',
    `This job has ${text(f['most'])} photos already.`,
    'Finish the job, or write a note instead.',
  ],
  'photo.unknown': () => ['No such photo', 'That photo is not kept here.', 'Go back to the job.'],
  'case.tied': (f) => [
    'Its bag stays tied',
    `The old ${text(f['stage'])} holds contained dust: its tied bag is not opened again.`,
    'Keep the new part in, and look for the fault at the next stage.',
  ],
  'procedure.not-for-kind': (f) => [
    'Not for this machine',
    `${text(f['tag'])} is not a machine for this job.`,
    'Choose a job from the list of this machine.',
  ],
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
  'case.ended': () => ['Case ended', 'This case is closed or handed on; nothing more can be added.', 'Open a new one.'],
  'case.event-unknown': () => [
    'Unknown line',
    'That line is not in this case, or was struck out before.',
    'Reload the page.',
  ],
  'case.not-done': (f) => ['Not done yet', sayOpen(text(f['reasons'])), 'The case stays open until that is done.'],
  'case.not-out': () => ['Not out', 'That stage is not out of the machine.', 'Reload the page.'],
  'case.trial': () => ['Trial part', 'That does not match where the new part is now.', 'Reload the page.'],
  'case.no-part': (f) => [
    'No spare',
    `No spare is kept for the ${text(f['stage'])}.`,
    'Choose another test, or give the stage its part in the machine editor.',
  ],
  'case.no-word': () => [
    'Not a result of this test',
    'That test does not give that result.',
    'Choose one of its results, or "I saw something else".',
  ],
  'case.change': () => [
    "Another stage's change",
    'That change is not one of this stage since the case was opened.',
    'Record the change of this stage first.',
  ],
  'edit.nothing': () => ['Nothing changed', 'The path did not change.', 'Change something, or leave the editor.'],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;
