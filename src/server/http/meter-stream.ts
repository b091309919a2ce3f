import { MethodName, PlaceName } from '@/contracts/enums';
import { type MeterLine, parseMeterLine } from '@/contracts/meter-line';
import { failure } from '@/core/failure/failure';
import { meterHub } from '../instruments/meter-hub';
import { type StandIn, standInLine } from '../instruments/stand-in-meter';
import { standInFor } from '../services/yard/stand-in-target';
import { app } from './app';
import type { Handler } from './endpoint';
import { readText } from './read-json';
import { json, respondProblems } from './respond';

const PERIOD_MS = 100;
/** A forgotten listener ends by itself. */
const LONGEST_MS = 15 * 60_000;
const MOST_LINES = 500;
const LINE_TYPES = /^application\/(x-ndjson|json)\b/i;

interface Listening {
  readonly id: number;
  readonly query: URLSearchParams;
  readonly signal: AbortSignal;
}

const wantedStandIn = async ({ query }: Listening): Promise<StandIn | null> => {
  const method = MethodName.safeParse(query.get('method'));
  const place = PlaceName.safeParse(query.get('place'));
  if (!method.success || !place.success) return null;
  return standInFor((await app()).context, { tag: query.get('tag') ?? '', method: method.data, place: place.data });
};

const startTalking = (listening: Listening, standIn: StandIn | null, say: (line: MeterLine) => void): (() => void) => {
  const began = Date.now();
  const talk = () => {
    const now = Date.now();
    if (!standIn || meterHub.bridged(listening.id, now)) return;
    say(standInLine(standIn, { seconds: (now - began) / 1000, t: new Date(now).toISOString(), uniform: Math.random }));
  };
  const timer = setInterval(talk, PERIOD_MS);
  const unhear = meterHub.listen(listening.id, say);
  return () => {
    clearInterval(timer);
    unhear();
  };
};

/** Streams open at once: a workshop has a few tablets; more is a fault or a flood. */
const MOST_STREAMS = 40;
/** Lines kept for a slow listener; later ones are dropped. */
const MOST_WAITING = 64;
let open = 0;

/** Server-sent events of one instrument: a bridge's lines, or the stand-in's while no bridge speaks. */
const meterStream = async (listening: Listening): Promise<Response> => {
  if (open >= MOST_STREAMS) return respondProblems([failure('stream.too-many')]);
  const standIn = await wantedStandIn(listening);
  const encoder = new TextEncoder();
  let stop = () => {};
  const body = new ReadableStream<Uint8Array>({
    start: (controller) => {
      // Gone before it began to listen: nothing would ever stop it.
      if (listening.signal.aborted) {
        controller.close();
        return;
      }
      open += 1;
      const quiet = startTalking(listening, standIn, (line) => {
        if ((controller.desiredSize ?? 0) > -MOST_WAITING)
          controller.enqueue(encoder.encode(`data: ${JSON.stringify(line)}\n\n`));
      });
      const end = setTimeout(() => {
        stop();
        controller.close();
      }, LONGEST_MS);
      let stopped = false;
      stop = () => {
        if (stopped) return;
        stopped = true;
        open -= 1;
        clearTimeout(end);
        quiet();
      };
      listening.signal.addEventListener('abort', () => stop(), { once: true });
    },
    cancel: () => stop(),
  });
  return new Response(body, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' } });
};

/** Lines a bridge posts, newline-delimited; each one that cannot be read is counted, not passed on. */
const postMeterLines = async (id: number, request: Request): Promise<Response> => {
  // A page of another site can send plain text unasked; it cannot name one of these types without asking first.
  if (!LINE_TYPES.test(request.headers.get('content-type') ?? ''))
    return respondProblems([failure('request.not-json')]);
  const text = await readText(request);
  if (!text.ok) return respondProblems(text.failures);
  const lines = text.value.split('\n').filter((l) => l.trim() !== '');
  if (lines.length > MOST_LINES) return respondProblems([failure('request.too-large', '', { most: MOST_LINES })]);
  let accepted = 0;
  for (const line of lines) {
    const parsed = parseMeterLine(line);
    if (!parsed) continue;
    meterHub.post(id, parsed, Date.now());
    accepted += 1;
  }
  return json({ accepted, refused: lines.length - accepted }, 202);
};

const idOf = (text: string | undefined): number | null => (/^\d{1,9}$/.test(text ?? '') ? Number(text) : null);

/** Streams a meter: server-sent events, one JSON line each. */
export const listenToMeter: Handler = ({ url, request }, params) => {
  const id = idOf(params['id']);
  return id === null
    ? respondProblems([failure('instrument.unknown', 'id')])
    : meterStream({ id, query: url.searchParams, signal: request.signal });
};

/** Takes the lines that the bridge of a real meter posts. */
export const postToMeter: Handler = ({ request }, params) => {
  const id = idOf(params['id']);
  return id === null ? respondProblems([failure('instrument.unknown', 'id')]) : postMeterLines(id, request);
};
