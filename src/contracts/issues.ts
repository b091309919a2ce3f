import type { z } from 'zod';
import { failure, type Failure, type FailureCode } from '@/core/failure/failure';

/** A zod issue as one of our failures, with the path of its field. */
export const failureOfIssue = (issue: z.core.$ZodIssue): Failure => {
  const path = issue.path.map(String).join('.');
  if (issue.code === 'too_small' && issue.origin === 'string') return failure('text.missing', path);
  if (issue.code === 'too_big') return failure('text.too-long', path, { most: Number(issue.maximum) });
  if (issue.code === 'invalid_format' && issue.format === 'datetime') return failure('date.invalid', path);
  if (issue.code === 'unrecognized_keys')
    return failure('field.invalid', [path, ...issue.keys].filter(Boolean).join('.'));
  // A check of our own names the problem.
  if (issue.code === 'custom' && typeof issue.params?.['code'] === 'string')
    return failure(issue.params['code'] as FailureCode, path);
  return failure('field.invalid', path);
};
