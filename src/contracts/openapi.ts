import { z } from 'zod';
import { ProblemReply, RecordedReply } from './responses';
import { RestoreBody, TakeCopyBody } from './backup';
import { DecontaminatedBody, EditDustBody, ExaminationBody, IntegrityBody, RuleSetBody, StateDustBody } from './dust';
import { CaseActionBody, OpenCaseBody } from './find';
import { JobActionBody, QuickJobBody, StartJobBody } from './job';
import { EditPathBody, NewMachineBody, RetagBody, RetireBody } from './machine-edit';
import {
  ChoosePassphraseBody,
  EndSessionBody,
  KeyBody,
  OfPersonBody,
  OpenHereBody,
  PersonBody,
  RevokeKeyBody,
  SecretReply,
  SignInBody,
} from './people';
import {
  LockPlanBody,
  LogLookBody,
  LogUsageBody,
  MachineAwayBody,
  OrderArrivedBody,
  OrderPartBody,
  SendRemindersBody,
} from './plan';
import { InstrumentBody, MergeBody, PartBody } from './registers';
import {
  CorrectChangeBody,
  CorrectTestBody,
  CountStockBody,
  RecordChangeBody,
  RecordTestBody,
  WithdrawBody,
  ReceivedBody,
} from './requests';
import { EditRulesBody } from './rules';
import { SheetAnswer, SheetBody, UndoSheetBody } from './sheet';
import { SiteBody } from './site';
import { BondingBody, ToolBody } from './tools';
import { PlanUpgradeBody, UpgradeActionBody } from './upgrade';

// The addresses of the interface, with the shapes that go in and come out: made into an OpenAPI document.

const SHAPES = {
  ProblemReply,
  RecordedReply,
  SecretReply,
  SheetAnswer,
  BondingBody,
  CaseActionBody,
  ChoosePassphraseBody,
  CorrectChangeBody,
  CorrectTestBody,
  CountStockBody,
  DecontaminatedBody,
  EditDustBody,
  EditPathBody,
  EditRulesBody,
  EndSessionBody,
  ExaminationBody,
  InstrumentBody,
  IntegrityBody,
  JobActionBody,
  KeyBody,
  LockPlanBody,
  LogLookBody,
  LogUsageBody,
  MachineAwayBody,
  NewMachineBody,
  OfPersonBody,
  OpenCaseBody,
  OpenHereBody,
  OrderArrivedBody,
  OrderPartBody,
  MergeBody,
  PartBody,
  PersonBody,
  QuickJobBody,
  ReceivedBody,
  RecordChangeBody,
  RecordTestBody,
  RetagBody,
  RetireBody,
  RevokeKeyBody,
  RuleSetBody,
  SendRemindersBody,
  SheetBody,
  SignInBody,
  SiteBody,
  StartJobBody,
  StateDustBody,
  TakeCopyBody,
  ToolBody,
  RestoreBody,
  UndoSheetBody,
  WithdrawBody,
  PlanUpgradeBody,
  UpgradeActionBody,
} as const satisfies Record<string, z.ZodType>;
type Shape = keyof typeof SHAPES;

export interface Operation {
  readonly path: string;
  readonly method: 'get' | 'post';
  readonly summary: string;
  /** The shape of what is sent, or the type of a body that is none of JSON. */
  readonly body: Shape | { readonly type: string } | null;
  /** The shape of the answer, or its type. */
  readonly reply: Shape | { readonly type: string };
  readonly query?: readonly string[];
}

const post = ([path, body]: readonly [string, Shape], summary: string, reply: Shape = 'RecordedReply'): Operation => ({
  path,
  method: 'post',
  summary,
  body,
  reply,
});
const get = (path: string, type: string, summary: string): Operation => ({
  path,
  method: 'get',
  summary,
  body: null,
  reply: { type },
});

/** Every address of the interface. A test holds it to what the server answers. */
export const OPERATIONS: readonly Operation[] = [
  post(['/api/machines', 'NewMachineBody'], 'Enter a machine with its air path'),
  post(['/api/machines/{tag}/path', 'EditPathBody'], 'Change a machine and its air path'),
  post(['/api/machines/{tag}/tag', 'RetagBody'], 'Correct a tag'),
  post(['/api/machines/{tag}/rules', 'EditRulesBody'], 'Set what makes a stage due'),
  post(['/api/machines/{tag}/retire', 'RetireBody'], 'Retire, sell or bring back a machine'),
  post(['/api/machines/{tag}/away', 'MachineAwayBody'], 'Say when a machine is away'),
  post(['/api/machines/{tag}/tests', 'RecordTestBody'], 'Record a test'),
  post(['/api/machines/{tag}/tests/correct', 'CorrectTestBody'], 'Correct a test'),
  post(['/api/machines/{tag}/tests/withdraw', 'WithdrawBody'], 'Withdraw a test'),
  post(['/api/machines/{tag}/changes', 'RecordChangeBody'], 'Record a change'),
  post(['/api/machines/{tag}/changes/correct', 'CorrectChangeBody'], 'Correct a change'),
  post(['/api/machines/{tag}/changes/withdraw', 'WithdrawBody'], 'Withdraw a change'),
  post(['/api/machines/{tag}/usage', 'LogUsageBody'], 'Log run hours'),
  post(['/api/machines/{tag}/looks', 'LogLookBody'], 'Log how full a stage is'),
  post(['/api/machines/{tag}/dust', 'StateDustBody'], 'Say what a machine collected'),
  post(['/api/machines/{tag}/decontaminated', 'DecontaminatedBody'], 'Note a decontamination by others'),
  post(['/api/machines/{tag}/examinations', 'ExaminationBody'], 'Note an examination'),
  post(['/api/machines/{tag}/bonding', 'BondingBody'], 'Note a continuity reading'),
  post(['/api/machines/{tag}/upgrades', 'PlanUpgradeBody'], 'Plan an upgrade'),
  post(['/api/machines/{tag}/upgrades/actions', 'UpgradeActionBody'], 'Book, undo or drop an upgrade'),
  post(['/api/machines/{tag}/integrity', 'IntegrityBody'], 'Note a test of a seat or of the whole machine'),
  post(['/api/machines/{tag}/cases', 'OpenCaseBody'], 'Open a case of fault finding'),
  post(['/api/machines/{tag}/cases/actions', 'CaseActionBody'], 'Go on with a case'),
  post(['/api/machines/{tag}/jobs', 'StartJobBody'], 'Start a guided change'),
  post(['/api/machines/{tag}/jobs/actions', 'JobActionBody'], 'Go on with a guided change'),
  post(['/api/machines/{tag}/jobs/quick', 'QuickJobBody'], 'Book a change from a card'),
  post(['/api/stock/parts', 'PartBody'], 'Enter or change a part'),
  post(['/api/stock/merges', 'MergeBody'], 'Make two entries of one part one'),
  post(['/api/stock/counts', 'CountStockBody'], 'Count a part'),
  post(['/api/stock/received', 'ReceivedBody'], 'Book in what came without an order'),
  post(['/api/stock/orders', 'OrderPartBody'], 'Note an order'),
  post(['/api/stock/arrivals', 'OrderArrivedBody'], 'Note that an order came'),
  post(['/api/instruments', 'InstrumentBody'], 'Enter or change a meter'),
  post(['/api/tools', 'ToolBody'], 'Enter or change a tool'),
  post(['/api/plan/locks', 'LockPlanBody'], 'Fix the day of a change'),
  post(['/api/plan/reminders', 'SendRemindersBody'], 'Send the reminders of the day'),
  post(['/api/backups/restore', 'RestoreBody'], 'Bring a copy of the records back'),
  post(['/api/site', 'SiteBody'], 'Set up or change the site'),
  post(['/api/rule-set', 'RuleSetBody'], 'Choose the rules of a country'),
  post(['/api/dusts', 'EditDustBody'], 'Enter or change a dust'),
  post(['/api/people', 'PersonBody'], 'Enter or change a person'),
  post(['/api/people/code', 'OfPersonBody'], 'Make a code to choose a passphrase with', 'SecretReply'),
  post(['/api/keys', 'KeyBody'], 'Make a key for a program', 'SecretReply'),
  post(['/api/keys/withdraw', 'RevokeKeyBody'], 'Withdraw a key'),
  post(['/api/open-here', 'OpenHereBody'], 'Ask for a passphrase at this machine, or not'),
  post(['/api/backups', 'TakeCopyBody'], 'Take a checked copy of the records'),
  post(['/api/sheets', 'SheetBody'], 'Take in a spreadsheet, or check it', 'SheetAnswer'),
  post(['/api/sheets/undo', 'UndoSheetBody'], 'Take a spreadsheet back'),
  post(['/api/sessions', 'SignInBody'], 'Sign in'),
  post(['/api/sessions/end', 'EndSessionBody'], 'Sign out'),
  post(['/api/sessions/passphrase', 'ChoosePassphraseBody'], 'Choose a passphrase with a code'),
  get('/api/health', 'application/json', 'Whether the server is up'),
  get('/api/machines/{tag}/cases', 'application/json', 'The open case of a machine'),
  get('/api/machines/{tag}/jobs', 'application/json', 'The guided change under way'),
  get('/api/machines/{tag}/trend.csv', 'text/csv', 'A trend as a table'),
  get('/api/machines/{tag}/bundle', 'application/zip', 'One machine with its file'),
  get('/api/bundle', 'application/zip', 'Everything there is, as a bundle'),
  get('/api/bundle-schema.json', 'application/json', 'The JSON Schema of a bundle'),
  get('/api/openapi.json', 'application/json', 'This document'),
  get('/api/sheets/{kind}.csv', 'text/csv', 'An empty spreadsheet of a kind'),
  get('/api/photos/{id}', 'image/*', 'A picture'),
  get('/api/stock/photos/{id}', 'image/*', 'A picture of a part'),
  {
    path: '/api/stock/photos',
    method: 'post',
    summary: 'Keep a picture of a part',
    body: { type: 'image/*' },
    reply: 'RecordedReply',
    query: ['clientId', 'by', 'partId'],
  },
  get('/api/upgrades/photos/{id}', 'image/*', 'A picture of an upgrade'),
  {
    path: '/api/upgrades/photos',
    method: 'post',
    summary: 'Keep a picture of an upgrade',
    body: { type: 'image/*' },
    reply: 'RecordedReply',
    query: ['clientId', 'by', 'upgradeId'],
  },
  get('/api/ring.svg', 'image/svg+xml', 'An adapter ring at full size'),
  get('/api/ring.dxf', 'image/vnd.dxf', 'An adapter ring for a cutter, in millimetres'),
  get('/api/plan/calendar.ics', 'text/calendar', 'The plan as a calendar'),
  get('/api/plan/page', 'application/json', 'The data of the plan page'),
  get('/api/instruments/{id}/stream', 'text/event-stream', 'The readings of a meter, as they come'),
  {
    path: '/api/bundle',
    method: 'post',
    summary: 'Take in a bundle, or ask what that would do',
    body: { type: 'application/zip' },
    reply: { type: 'application/json' },
    query: ['clientId', 'by', 'dryRun'],
  },
  {
    path: '/api/machines/{tag}/jobs/photos',
    method: 'post',
    summary: 'Keep a picture of a step',
    body: { type: 'image/*' },
    reply: 'RecordedReply',
    query: ['clientId', 'by', 'jobId', 'step'],
  },
  {
    path: '/api/instruments/{id}/stream',
    method: 'post',
    summary: 'Send readings of a meter',
    body: { type: 'application/json' },
    reply: { type: 'application/json' },
  },
];

const contentOf = (what: Operation['reply']): object =>
  typeof what === 'string'
    ? { 'application/json': { schema: { $ref: `#/components/schemas/${what}` } } }
    : { [what.type]: { schema: {} } };

const parametersOf = ({ path, query = [] }: Operation): readonly object[] => [
  ...[...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  })),
  ...query.map((name) => ({ name, in: 'query', required: true, schema: { type: 'string' } })),
];

const operationOf = (o: Operation): object => ({
  summary: o.summary,
  operationId: `${o.method}${o.path.replace(/[^A-Za-z0-9]+(.)?/g, (_, c: string | undefined) => (c ?? '').toUpperCase())}`,
  parameters: parametersOf(o),
  ...(o.body === null ? {} : { requestBody: { required: true, content: contentOf(o.body) } }),
  responses: {
    [o.method === 'post' ? '201' : '200']: { description: 'Done', content: contentOf(o.reply) },
    default: { description: 'Refused, in a sentence', content: contentOf('ProblemReply') },
  },
});

const schemaOf = (shape: z.ZodType): object => {
  const schema = z.toJSONSchema(shape, { io: 'input', unrepresentable: 'any', reused: 'inline' });
  return Object.fromEntries(Object.entries(schema).filter(([key]) => key !== '$schema'));
};

/** The interface as an OpenAPI 3.1 document. Source: OpenAPI Specification 3.1.1; JSON Schema 2020-12. */
export const openApi = (): object => ({
  openapi: '3.1.1',
  info: {
    title: 'Moorwind',
    version: '1',
    description:
      'Every action names itself by a clientId the sender makes: the same one sent again is the same action. Quantities are SI, moments UTC; a refusal says in a sentence what is wrong, and where.',
    license: { name: 'MIT', identifier: 'MIT' },
  },
  servers: [{ url: '/' }],
  security: [{ session: [] }, { key: [] }, {}],
  paths: Object.fromEntries(
    [...new Set(OPERATIONS.map((o) => o.path))].map((path) => [
      path,
      Object.fromEntries(OPERATIONS.filter((o) => o.path === path).map((o) => [o.method, operationOf(o)])),
    ]),
  ),
  components: {
    schemas: Object.fromEntries(Object.entries(SHAPES).map(([name, shape]) => [name, schemaOf(shape)])),
    securitySchemes: {
      session: { type: 'apiKey', in: 'cookie', name: 'mw_session' },
      key: { type: 'http', scheme: 'bearer' },
    },
  },
});
