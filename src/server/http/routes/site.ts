import { CrewBody } from '@/contracts/crew';
import { EditDustBody, RuleSetBody } from '@/contracts/dust';
import { MeterPosted } from '@/contracts/meter-line';
import {
  LockPlanBody,
  OrderArrivedBody,
  OrderPartBody,
  PlanPageJson,
  SendRemindersBody,
  StartStagesBody,
} from '@/contracts/plan';
import { MetersReply, PageQuery, DatedQuery, PartsReply, PlannedReply, StockReply } from '@/contracts/reads';
import { InstrumentBody, MergeBody, PartBody, PartPhotoQuery } from '@/contracts/registers';
import { CountStockBody, ReceivedBody } from '@/contracts/requests';
import { SiteBody } from '@/contracts/site';
import { ToolBody } from '@/contracts/tools';
import { ok } from '@/core/failure/failure';
import { BUILT_IN_DUSTS } from '@/core/dust/register';
import { listMeters, listParts, listStock } from '../../repositories/lists';
import { countStock, receiveParts } from '../../services/stock/count-stock';
import { logCrew } from '../../services/plan/crew';
import { startStages } from '../../services/plan/start-stages';
import { lockPlan } from '../../services/plan/lock-plan';
import { mergeParts } from '../../services/stock/merge-parts';
import { orderArrived, orderPart } from '../../services/stock/order-part';
import { keepPartPhoto, partPhotoOf } from '../../services/stock/part-photo';
import { planEvents } from '../../services/plan/plan-events';
import { loadPlanPage } from '../../services/plan/plan-page';
import { planYard } from '../../services/plan/plan-yard';
import { keepInstrument, keepPart } from '../../services/yard/registers';
import { keepSite } from '../../services/yard/site-settings';
import { chooseRuleSet, editDust } from '../../services/yard/state-dust';
import { keepTool } from '../../services/yard/tools';
import { loadYard } from '../../services/yard/yard';
import { listenToMeter, postToMeter } from '../meter-stream';
import { sendReminders } from '../reminders';
import { get, getFile, postPicture, postSite, type Route } from '../route';
import { ACTION } from './example';
import { planCalendar, ringFile, storedPicture } from './files';

const STOCK: readonly Route[] = [
  get(['/api/stock/parts', 'look', 'List the parts with their stock'], {
    query: PageQuery,
    answer: ['PartsReply', PartsReply],
    example: { limit: '200' },
    run: async ({ db }, _params, query) => ok(await listParts(db, query)),
  }),
  get(['/api/stock/movements', 'look', 'List the stock movements'], {
    query: DatedQuery,
    answer: ['StockReply', StockReply],
    example: { from: '2026-11-01' },
    run: async ({ db }, _params, query) => ok(await listStock(db, query)),
  }),
  postSite(['/api/stock/parts', 'technician', 'Enter or change a part'], {
    body: ['PartBody', PartBody],
    run: keepPart,
    example: {
      ...ACTION,
      id: null,
      code: 'BAG-25',
      name: 'fleece bag, 25 L',
      packSize: 5,
      bin: 'A1',
      supplier: '',
      price: 4.2,
      leadDays: 7,
      shelfDays: null,
      minimum: null,
      onHand: 12,
      retired: false,
    },
  }),
  postSite(['/api/stock/merges', 'lead', 'Merge two entries of one part; this cannot be undone'], {
    body: ['MergeBody', MergeBody],
    run: mergeParts,
    example: { ...ACTION, partId: 4, intoId: 2 },
  }),
  postSite(['/api/stock/counts', 'technician', 'Record a count of a part'], {
    body: ['CountStockBody', CountStockBody],
    run: countStock,
    example: { ...ACTION, partId: 2, counted: 11 },
  }),
  postSite(['/api/stock/received', 'technician', 'Book in pieces that came without an order'], {
    body: ['ReceivedBody', ReceivedBody],
    run: receiveParts,
    example: { ...ACTION, partId: 2, pieces: 5 },
  }),
  postSite(['/api/stock/orders', 'technician', 'Record an order'], {
    body: ['OrderPartBody', OrderPartBody],
    run: orderPart,
    example: { ...ACTION, partId: 2, packs: 2, arrivesOn: '2026-12-08' },
  }),
  postSite(['/api/stock/arrivals', 'technician', 'Record the arrival of an order'], {
    body: ['OrderArrivedBody', OrderArrivedBody],
    run: orderArrived,
    example: { ...ACTION, orderId: 3 },
  }),
  postPicture(['/api/stock/photos', 'technician', 'Store a picture of a part'], PartPhotoQuery, (c, _, sent) =>
    keepPartPhoto(c, sent),
  ),
  getFile(['/api/stock/photos/{id}', 'look', 'Download a picture of a part'], 'image/*', storedPicture(partPhotoOf)),
];

const REGISTERS: readonly Route[] = [
  get(['/api/instruments', 'look', 'List the meters'], {
    query: PageQuery,
    answer: ['MetersReply', MetersReply],
    example: { after: '0' },
    run: async ({ db }, _params, query) => ok(await listMeters(db, query)),
  }),
  postSite(['/api/instruments', 'technician', 'Enter or change a meter'], {
    body: ['InstrumentBody', InstrumentBody],
    run: keepInstrument,
    example: {
      ...ACTION,
      id: null,
      name: 'Flow meter, no. 4',
      reads: 'flow',
      accuracy: { relative: 0.02, absoluteSi: 0.0001, resolutionSi: 0.0001, coverageFactor: 2, meaning: 'limits' },
      certificate: 'C-204',
      calibrationDueOn: '2027-06-01',
      retired: false,
    },
  }),
  getFile(
    ['/api/instruments/{id}/stream', 'look', 'Listen to the readings of a meter'],
    'text/event-stream',
    listenToMeter,
  ),
  {
    method: 'POST',
    path: '/api/instruments/{id}/stream',
    access: 'technician',
    key: 'meter',
    summary: 'Send readings of a meter',
    body: { type: 'application/x-ndjson' },
    answer: { name: 'MeterPosted', schema: MeterPosted },
    status: 202,
    example: null,
    handle: postToMeter,
  },
  postSite(['/api/tools', 'technician', 'Enter or change a tool'], {
    body: ['ToolBody', ToolBody],
    run: keepTool,
    example: {
      ...ACTION,
      key: null,
      name: 'Sander 2',
      like: 'sander',
      sizeM: 0.15,
      airM3s: null,
      amps: null,
      retired: false,
    },
  }),
  postSite(['/api/dusts', 'lead', 'Enter or change a dust'], {
    body: ['EditDustBody', EditDustBody],
    run: editDust,
    example: { ...ACTION, dust: BUILT_IN_DUSTS[0] },
  }),
  postSite(['/api/rule-set', 'lead', 'Choose the rules of a country'], {
    body: ['RuleSetBody', RuleSetBody],
    run: chooseRuleSet,
    example: { ...ACTION, ruleSet: 'eu_uk' },
  }),
  postSite(['/api/site', 'lead', 'Set up or change the site'], {
    body: ['SiteBody', SiteBody],
    run: keepSite,
    example: {
      ...ACTION,
      name: 'Curlew Reach Boatyard',
      timeZone: 'Europe/London',
      altitudeM: 12,
      ruleSet: 'eu_uk',
      thresholds: { warnLoss: 0.15, actLoss: 0.25 },
      weekdays: [1, 2, 3, 4, 5],
      closed: ['2026-12-25'],
      minutesADay: 120,
    },
  }),
];

const PLAN: readonly Route[] = [
  get(['/api/plan', 'look', 'List the openings of the plan'], {
    answer: ['PlannedReply', PlannedReply],
    run: async (context) => {
      const plan = await planYard(context);
      return ok({ today: plan.outlook.yard.today, openings: [...planEvents(plan)] });
    },
  }),
  get(['/api/plan/page', 'look', 'Read the data of the plan page'], {
    answer: ['PlanPageJson', PlanPageJson],
    run: async (context) => ok(await loadPlanPage(context, await loadYard(context))),
  }),
  {
    ...getFile(
      ['/api/plan/calendar.ics', 'look', 'Subscribe to the plan as a calendar'],
      'text/calendar',
      planCalendar,
    ),
    key: 'calendar',
  },
  postSite(['/api/plan/locks', 'technician', 'Fix the day of a change'], {
    body: ['LockPlanBody', LockPlanBody],
    run: lockPlan,
    example: { ...ACTION, locks: [{ stageId: 3, day: '2026-12-08' }] },
  }),
  postSite(['/api/plan/crew', 'technician', "Record a person's working time"], {
    body: ['CrewBody', CrewBody],
    run: logCrew,
    example: { ...ACTION, personId: 1, entry: { kind: 'times', minutes: [0, 60, 60, 60, 60, 60, 0] } },
  }),
  postSite(['/api/plan/starts', 'technician', 'Count the time of parts from a day on'], {
    body: ['StartStagesBody', StartStagesBody],
    run: startStages,
    example: { ...ACTION, stageIds: [3], day: '2026-11-24' },
  }),
  postSite(['/api/plan/reminders', 'technician', "Send today's reminders"], {
    body: ['SendRemindersBody', SendRemindersBody],
    run: async (context) => ok({ id: await sendReminders(context) }),
    example: { clientId: ACTION.clientId },
  }),
  getFile(['/api/ring.svg', 'look', 'Draw an adapter ring at full size'], 'image/svg+xml', ringFile('svg')),
  getFile(['/api/ring.dxf', 'look', 'Draw an adapter ring for a cutter, in mm'], 'image/vnd.dxf', ringFile('dxf')),
];

/** Stock, meters, tools, dusts, settings and the plan. */
export const SITE_ROUTES: readonly Route[] = [...STOCK, ...REGISTERS, ...PLAN];
