import { CaseActionBody, OpenCaseBody, OpenCaseReply } from '@/contracts/find';
import { JobActionBody, OpenJobReply, PhotoQuery, QuickJobBody, StartJobBody } from '@/contracts/job';
import { CasesReply, ChangesReply, DatedQuery, JobsReply, TestsReply } from '@/contracts/reads';
import {
  CorrectChangeBody,
  CorrectTestBody,
  RecordChangeBody,
  RecordTestBody,
  WithdrawBody,
} from '@/contracts/requests';
import { RecordedReply } from '@/contracts/responses';
import { PlanUpgradeBody, UpgradeActionBody, UpgradePhotoQuery } from '@/contracts/upgrade';
import { listCases, listChanges, listJobs, listTests } from '../../repositories/machine-lists';
import { doInCase, openFaultCase } from '../../services/jobs/find-case';
import { openCaseOf } from '../../services/jobs/find-page';
import { doInJob, openJobOf, quickJob } from '../../services/jobs/guided-job';
import { keepPhoto, photoOf } from '../../services/jobs/job-photo';
import { correctChange, recordChange, withdrawChange } from '../../services/jobs/record-change';
import { correctTest, recordTest, withdrawTest } from '../../services/measuring/record-test';
import { startJob } from '../../services/jobs/start-job';
import { keepUpgradePhoto, upgradePhotoOf } from '../../services/upgrade/upgrade-photo';
import { actOnUpgrade, planUpgrade } from '../../services/upgrade/upgrades';
import { changeReply, testReply } from '../replies';
import { answering, get, getFile, post, postPicture, type Route } from '../route';
import { ACTION, DUST } from './example';
import { storedPicture, trendAsCsv } from './files';
import { ofMachine } from './of-machine';

const RECORDED = { name: 'RecordedReply', schema: RecordedReply } as const;
const TEST = { answer: RECORDED, reply: testReply } as const;
const CHANGE = { answer: RECORDED, reply: changeReply } as const;

const READING = { unit: 'L/s', how: 'typed', struckBecause: null } as const;
const AIR = { temperature: { typed: '20', unit: 'degC' }, humidity: { typed: '50', unit: '%' }, pressure: null };
const A_TEST = {
  ...ACTION,
  performedAt: '2026-11-30T10:00:00.000Z',
  method: 'flowMeter',
  place: 'hoseEnd',
  readings: ['14.3', '14.2', '14.4'].map((typed, slot) => ({ ...READING, typed, slot })),
  air: AIR,
  failedPreconditions: [],
  bagState: 'asFound',
};
const A_CHANGE = { ...ACTION, performedAt: '2026-11-30T10:00:00.000Z', stageId: 3, reason: 'fill', quantity: 1 };
const CORRECTION = { supersedesId: 7, correctionReason: 'typed the wrong unit' };
const JOB = { ...ACTION, job: { kind: 'change', stage: 2, school: 'off' }, dust: DUST, reason: 'fill' };

const TESTS: readonly Route[] = [
  get(['/api/machines/{tag}/tests', 'look', 'List the tests of a machine'], {
    query: DatedQuery,
    answer: ['TestsReply', TestsReply],
    example: { from: '2026-01-01', to: '2026-11-30', limit: '50' },
    run: ofMachine(listTests),
  }),
  answering(
    ['/api/machines/{tag}/tests', 'technician', 'Record a test'],
    { body: ['RecordTestBody', RecordTestBody], run: recordTest, example: A_TEST },
    TEST,
  ),
  answering(
    ['/api/machines/{tag}/tests/correct', 'technician', 'Correct a test'],
    { body: ['CorrectTestBody', CorrectTestBody], run: correctTest, example: { ...A_TEST, ...CORRECTION } },
    TEST,
  ),
  post(['/api/machines/{tag}/tests/withdraw', 'technician', 'Withdraw a test'], {
    body: ['WithdrawBody', WithdrawBody],
    run: withdrawTest,
    example: { ...ACTION, ...CORRECTION },
  }),
  getFile(['/api/machines/{tag}/trend.csv', 'look', 'Download a trend as a table'], 'text/csv', trendAsCsv),
];

const CHANGES: readonly Route[] = [
  get(['/api/machines/{tag}/changes', 'look', 'List the changes of a machine'], {
    query: DatedQuery,
    answer: ['ChangesReply', ChangesReply],
    example: { from: '2026-01-01' },
    run: ofMachine(listChanges),
  }),
  answering(
    ['/api/machines/{tag}/changes', 'technician', 'Record a change'],
    { body: ['RecordChangeBody', RecordChangeBody], run: recordChange, example: A_CHANGE },
    CHANGE,
  ),
  answering(
    ['/api/machines/{tag}/changes/correct', 'technician', 'Correct a change'],
    { body: ['CorrectChangeBody', CorrectChangeBody], run: correctChange, example: { ...A_CHANGE, ...CORRECTION } },
    CHANGE,
  ),
  answering(
    ['/api/machines/{tag}/changes/withdraw', 'technician', 'Withdraw a change'],
    { body: ['WithdrawBody', WithdrawBody], run: withdrawChange, example: { ...ACTION, ...CORRECTION } },
    CHANGE,
  ),
];

const JOBS: readonly Route[] = [
  get(['/api/machines/{tag}/jobs', 'look', 'List the guided changes of a machine'], {
    query: DatedQuery,
    answer: ['JobsReply', JobsReply],
    example: { from: '2026-01-01' },
    run: ofMachine(listJobs),
  }),
  get(['/api/machines/{tag}/jobs/open', 'look', 'Read the open guided change of a machine'], {
    answer: ['OpenJobReply', OpenJobReply],
    run: (context, { tag = '' }) => openJobOf(context, tag),
  }),
  post(['/api/machines/{tag}/jobs', 'technician', 'Start a guided change'], {
    body: ['StartJobBody', StartJobBody],
    run: startJob,
    example: { ...JOB, people: 1 },
  }),
  post(['/api/machines/{tag}/jobs/actions', 'technician', 'Record an action of a guided change'], {
    body: ['JobActionBody', JobActionBody],
    run: doInJob,
    example: { ...ACTION, jobId: 2, event: { kind: 'did', step: 1 } },
  }),
  post(['/api/machines/{tag}/jobs/quick', 'technician', 'Record a whole change from one sheet'], {
    body: ['QuickJobBody', QuickJobBody],
    run: quickJob,
    example: { ...JOB, answers: [{ kind: 'right' }], wasteKg: null },
  }),
  postPicture(['/api/machines/{tag}/jobs/photos', 'technician', 'Store a picture of a step'], PhotoQuery, keepPhoto),
  getFile(['/api/photos/{id}', 'look', 'Download a picture of a step'], 'image/*', storedPicture(photoOf)),
];

const CASES: readonly Route[] = [
  get(['/api/machines/{tag}/cases', 'look', 'List the fault cases of a machine'], {
    query: DatedQuery,
    answer: ['CasesReply', CasesReply],
    example: { from: '2026-01-01' },
    run: ofMachine(listCases),
  }),
  get(['/api/machines/{tag}/cases/open', 'look', 'Read the open fault case of a machine'], {
    answer: ['OpenCaseReply', OpenCaseReply],
    run: (context, { tag = '' }) => openCaseOf(context, tag),
  }),
  post(['/api/machines/{tag}/cases', 'technician', 'Open a fault case'], {
    body: ['OpenCaseBody', OpenCaseBody],
    run: openFaultCase,
    example: { ...ACTION, complaint: 'noSuction', words: 'weak at the sander', dust: DUST, school: 'best' },
  }),
  post(['/api/machines/{tag}/cases/actions', 'technician', 'Record an action of a fault case'], {
    body: ['CaseActionBody', CaseActionBody],
    run: doInCase,
    example: { ...ACTION, caseId: 2, action: { kind: 'skip', operation: { kind: 'listen' } } },
  }),
];

const UPGRADES: readonly Route[] = [
  post(['/api/machines/{tag}/upgrades', 'technician', 'Plan an upgrade'], {
    body: ['PlanUpgradeBody', PlanUpgradeBody],
    run: planUpgrade,
    example: { ...ACTION, note: '', changes: [{ kind: 'hose', boreM: 0.036, lengthM: 3.5 }], price: 60 },
  }),
  post(['/api/machines/{tag}/upgrades/actions', 'technician', 'Book, undo or drop an upgrade'], {
    body: ['UpgradeActionBody', UpgradeActionBody],
    run: actOnUpgrade,
    example: { ...ACTION, note: '', upgradeId: 1, action: 'book' },
  }),
  postPicture(['/api/upgrades/photos', 'technician', 'Store a picture of an upgrade'], UpgradePhotoQuery, (c, _, s) =>
    keepUpgradePhoto(c, s),
  ),
  getFile(
    ['/api/upgrades/photos/{id}', 'look', 'Download a picture of an upgrade'],
    'image/*',
    storedPicture(upgradePhotoOf),
  ),
];

/** Tests, changes, guided changes, fault cases and upgrades of a machine. */
export const WORK_ROUTES: readonly Route[] = [...TESTS, ...CHANGES, ...JOBS, ...CASES, ...UPGRADES];
