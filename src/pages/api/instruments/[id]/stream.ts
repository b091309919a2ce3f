import type { APIRoute } from 'astro';
import { failure } from '@/core/failure/failure';
import { notThatWay } from '@/server/http/endpoint';
import { meterStream, postMeterLines } from '@/server/http/meter-stream';
import { respondProblems } from '@/server/http/respond';

const idOf = (text: string | undefined): number | null => (/^\d{1,9}$/.test(text ?? '') ? Number(text) : null);

/** Listens to an instrument: server-sent events, one line of newline-delimited JSON each. */
export const GET: APIRoute = ({ params, url, request }) => {
  const id = idOf(params['id']);
  return id === null
    ? respondProblems([failure('instrument.unknown', 'id')])
    : meterStream({ id, query: url.searchParams, signal: request.signal });
};

/** A bridge of a real meter posts its lines to the same address. */
export const POST: APIRoute = ({ params, request }) => {
  const id = idOf(params['id']);
  return id === null ? respondProblems([failure('instrument.unknown', 'id')]) : postMeterLines(id, request);
};

export const ALL = notThatWay;
