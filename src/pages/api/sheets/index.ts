import { SheetBody } from '@/contracts/sheet';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { MAX_SHEET_BYTES } from '@/server/http/read-json';
import { takeInSheet } from '@/server/services/take-in-sheet';

export const POST = recordingSite({
  body: SheetBody,
  most: MAX_SHEET_BYTES,
  run: takeInSheet,
  reply: (answer) => answer,
});
export const ALL = notThatWay;
