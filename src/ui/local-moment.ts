import { format, isValid, parse } from 'date-fns';

const FORMS = ['yyyy-MM-dd HH:mm', "yyyy-MM-dd'T'HH:mm"] as const;

/** A UTC moment as the text of a moment field, in the reader's own zone, by the 24-hour clock. */
export const toLocalField = (iso: string): string => format(new Date(iso), FORMS[0]);

/** The UTC moment of a moment field; null when it holds none. */
export const fromLocalField = (text: string): string | null => {
  const moment = FORMS.map((form) => parse(text.trim(), form, new Date(0))).find(isValid);
  return moment ? moment.toISOString() : null;
};

/** The moment to send: empty is now; an invalid text goes unchanged and is refused at its field. */
export const momentSent = (text: string): string =>
  text.trim() === '' ? new Date().toISOString() : (fromLocalField(text) ?? text);
