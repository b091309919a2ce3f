import type { ZodType } from 'zod';
import { failure } from '@/core/failure/failure';
import { type Problem, problemOf } from '@/messages/failures';

/** What is on record now, read into its shape; null when it cannot be had. Never throws. */
export const loadAnew = async <T>(url: string, shape: ZodType<T>): Promise<T | null> => {
  try {
    const read = shape.safeParse(await (await fetch(url)).json());
    return read.success ? read.data : null;
  } catch {
    return null;
  }
};

/** Said when an action is on record and the page could not be brought up to date after it. */
export const shownIsOld = (): Problem => problemOf(failure('action.not-reloaded'));
