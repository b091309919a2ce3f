/** Days that an examiner usually asks for between the call and the visit. Common practice, no published source. */
const BOOK_AHEAD_DAYS = 21;

/** A planned examination of one machine; days from today. */
export interface PlannedExamination {
  readonly latest: number;
  /** null while no day is possible. */
  readonly day: number | null;
  /** Fixed by hand: the examiner is booked. */
  readonly fixed: boolean;
}

/** An examination as it follows from its plan. */
export interface ExaminationOutcome {
  /** Its own day is past already. */
  readonly past: boolean;
  /** It comes after its own day: the machine is not used from then on until it is examined. */
  readonly late: boolean;
  /** The day the examiner has to be called by; `now` within the usual notice; null where the visit is fixed or has no day. */
  readonly call: number | 'now' | null;
}

/** When an examination is late, and when its examiner has to be called. Days from today. Choice: the notice is a modelling choice. Total. */
export const examinationOutcome = ({ latest, day, fixed }: PlannedExamination): ExaminationOutcome => ({
  past: latest < 0,
  late: latest < 0 || day === null || day > latest,
  call: fixed || day === null ? null : day <= BOOK_AHEAD_DAYS ? 'now' : day - BOOK_AHEAD_DAYS,
});
