import { format, isValid, parse } from 'date-fns';

const FORM = "yyyy-MM-dd'T'HH:mm";

/** A UTC moment as the text of a datetime-local field, in the reader's own zone. */
export const toLocalField = (iso: string): string => format(new Date(iso), FORM);

/** The UTC moment of a datetime-local field; null when it holds none. */
export const fromLocalField = (text: string): string | null => {
  const moment = parse(text, FORM, new Date(0));
  return isValid(moment) ? moment.toISOString() : null;
};
