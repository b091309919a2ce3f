import type { ZodType } from 'zod';
import { failure } from '@/core/failure/failure';
import { type Problem, problemOf } from '@/messages/failures';

/** The present records in their shape; null when they cannot be loaded. Never throws. */
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
