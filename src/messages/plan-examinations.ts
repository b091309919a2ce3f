import type { ExaminationOutcome, PlannedExamination } from '@/core/plan/examination-plan';

interface Examined extends PlannedExamination, ExaminationOutcome {
  readonly tag: string;
}

/** When a machine is to be examined, and what follows where that is late. */
export const sayExamination = (
  { tag, latest, day, fixed, past, late }: Examined,
  dateOf: (day: number) => string,
): string => {
  const due = `${tag}: the examination ${past ? 'was' : 'is'} due by ${dateOf(latest)}`;
  const booked =
    day === null ? 'no day is possible in these weeks' : `${fixed ? 'fixed on' : 'planned for'} ${dateOf(day)}`;
  const stop = past
    ? ' Do not use the machine until it is examined.'
    : ` Do not use the machine after ${dateOf(latest)} until it is examined.`;
  return `${due}; ${booked}.${late ? stop : ''}`;
};

/** When the examiner has to be called; nothing where the visit is fixed. */
export const sayBooking = ({ call }: Examined, dateOf: (day: number) => string): string => {
  if (call === null) return '';
  return call === 'now' ? 'Book the examiner now.' : `Book the examiner by ${dateOf(call)}.`;
};
