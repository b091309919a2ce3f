import { DecontaminatedBody, ExaminationBody, IntegrityBody, StateDustBody } from '@/contracts/dust';
import { EditPathBody, NewMachineBody, RetagBody, RetireBody } from '@/contracts/machine-edit';
import { LogLookBody, LogUsageBody, MachineAwayBody } from '@/contracts/plan';
import { DatedQuery, HoursReply, LooksReply, MachinesReply, PageQuery } from '@/contracts/reads';
import { EditRulesBody } from '@/contracts/rules';
import { BondingBody } from '@/contracts/tools';
import { ok } from '@/core/failure/failure';
import { stageTemplate } from '@/core/machine/stage-templates';
import { listMachines } from '../../repositories/lists';
import { listHours, listLooks } from '../../repositories/machine-lists';
import { correctTag, editPath, newMachine } from '../../services/yard/edit-path';
import { editRules } from '../../services/yard/edit-rules';
import { recordIntegrity } from '../../services/jobs/integrity-check';
import { logAway, logLook, logUsage } from '../../services/yard/log-wear';
import { retireMachine } from '../../services/yard/retire';
import { recordDecontaminated, recordExamination, stateDust } from '../../services/yard/state-dust';
import { recordBonding } from '../../services/yard/tools';
import { get, post, postSite, type Route } from '../route';
import { ACTION, DUST } from './example';
import { ofMachine } from './of-machine';

const PATH = {
  machine: {
    name: 'Extractor at the bench',
    maker: '',
    place: 'Bench 2',
    machineClass: 'M',
    hasBrush: false,
    wetSet: false,
    hoseBoreM: 0.027,
    hoseLengthM: 3.5,
    hoseSelectorM: null,
    nominalVolts: 230,
  },
  stages: (['hose', 'bag', 'mainFilter', 'fan'] as const).map((kind) => ({
    id: null,
    kind,
    name: kind === 'mainFilter' ? 'main filter' : kind,
    partId: null,
    missing: false,
    doNotRemove: false,
    spec: stageTemplate(kind, 'mExtractor'),
  })),
};

/** Machines, their facts, their use and their dust. */
export const MACHINE_ROUTES: readonly Route[] = [
  get(['/api/machines', 'look', 'List the machines with their stages'], {
    query: PageQuery,
    answer: ['MachinesReply', MachinesReply],
    example: { after: '0', limit: '100' },
    run: async ({ db }, _params, query) => ok(await listMachines(db, query)),
  }),
  postSite(['/api/machines', 'technician', 'Enter a machine with its air path'], {
    body: ['NewMachineBody', NewMachineBody],
    run: newMachine,
    example: { ...ACTION, note: '', tag: 'LS-01', kind: 'mExtractor', dust: DUST, path: PATH },
  }),
  post(['/api/machines/{tag}/path', 'technician', 'Change a machine and its air path'], {
    body: ['EditPathBody', EditPathBody],
    run: editPath,
    example: { ...ACTION, note: 'longer hose', seen: 0, path: PATH },
  }),
  post(['/api/machines/{tag}/tag', 'technician', 'Correct a tag'], {
    body: ['RetagBody', RetagBody],
    run: correctTag,
    example: { ...ACTION, tag: 'LS-10' },
  }),
  post(['/api/machines/{tag}/rules', 'technician', 'Set the rules by which a stage is due'], {
    body: ['EditRulesBody', EditRulesBody],
    run: editRules,
    example: { ...ACTION, stageId: 3, rules: [{ rule: { kind: 'runHours', hours: 200 }, school: '' }] },
  }),
  post(['/api/machines/{tag}/retire', 'technician', 'Retire, sell or bring back a machine'], {
    body: ['RetireBody', RetireBody],
    run: retireMachine,
    evenGone: true,
    example: { ...ACTION, how: 'retired', note: 'worn out, emptied and wiped' },
  }),
  post(['/api/machines/{tag}/away', 'technician', 'Enter the days a machine is away'], {
    body: ['MachineAwayBody', MachineAwayBody],
    run: logAway,
    example: { ...ACTION, from: '2026-12-07', to: '2026-12-11', why: 'lent to the slipway' },
  }),
  get(['/api/machines/{tag}/usage', 'look', 'List the run hours of a machine'], {
    query: DatedQuery,
    answer: ['HoursReply', HoursReply],
    example: { from: '2026-01-01' },
    run: ofMachine(listHours),
  }),
  post(['/api/machines/{tag}/usage', 'technician', 'Log run hours'], {
    body: ['LogUsageBody', LogUsageBody],
    run: logUsage,
    example: { ...ACTION, day: '2026-11-30', hours: 3.5, dust: 'house dust' },
  }),
  get(['/api/machines/{tag}/looks', 'look', 'List the fill checks of a machine'], {
    query: DatedQuery,
    answer: ['LooksReply', LooksReply],
    example: { from: '2026-01-01' },
    run: ofMachine(listLooks),
  }),
  post(['/api/machines/{tag}/looks', 'technician', 'Log how full a stage is'], {
    body: ['LogLookBody', LogLookBody],
    run: logLook,
    example: { ...ACTION, stageId: 3, day: '2026-11-30', share: 0.5 },
  }),
  post(['/api/machines/{tag}/dust', 'technician', 'State the dust that a machine collected'], {
    body: ['StateDustBody', StateDustBody],
    run: stateDust,
    example: { ...ACTION, dust: DUST, since: null },
  }),
  post(['/api/machines/{tag}/decontaminated', 'technician', 'Record a decontamination by others'], {
    body: ['DecontaminatedBody', DecontaminatedBody],
    run: recordDecontaminated,
    example: { ...ACTION, on: '2026-11-30', who: 'Contractor', paper: 'D-17' },
  }),
  post(['/api/machines/{tag}/examinations', 'technician', 'Record an examination by a competent person'], {
    body: ['ExaminationBody', ExaminationBody],
    run: recordExamination,
    example: { ...ACTION, on: '2026-11-30', examiner: 'Examiner', found: 'sound, seals dry' },
  }),
  post(['/api/machines/{tag}/bonding', 'technician', 'Record a continuity reading'], {
    body: ['BondingBody', BondingBody],
    run: recordBonding,
    example: { ...ACTION, on: '2026-11-30', ohm: 850_000, between: 'hose end and earth pin' },
  }),
  post(['/api/machines/{tag}/integrity', 'technician', 'Record a test of a seat or of the whole machine'], {
    body: ['IntegrityBody', IntegrityBody],
    run: recordIntegrity,
    example: { ...ACTION, stageId: 3, test: 'cleanSide', passed: true, note: '' },
  }),
];
