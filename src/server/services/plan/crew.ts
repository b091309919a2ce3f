import { PlainAnswer } from '@/contracts/action-answer';
import type { CrewBody, CrewPageJson } from '@/contracts/crew';
import { addDays, type CalendarDate, dayAt } from '@/core/calendar/calendar-date';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { mayAs, paperGaps, type Person } from '@/core/people/person';
import { type CrewDay, crewDays, type CrewPerson, usualMinutes } from '@/core/plan/crew';
import type { Db } from '../../db/connect';
import { insertCrewEntry, loadCrewEntries } from '../../repositories/crew';
import { loadPeople } from '../../repositories/people';
import { loadSite } from '../../repositories/site';
import { type Context, runOnce } from '../yard/user-action';

/** Days ahead that the page shows. */
const SHOWN_DAYS = 14;

const mayContainOn = (person: Person, day: CalendarDate): boolean =>
  person.mayContain && paperGaps(person, day).length === 0;

interface Working {
  readonly person: Person;
  readonly crew: CrewPerson;
}

/** Active people who may record work, with what they said of their time. */
const loadWorking = async (db: Db): Promise<readonly Working[]> => {
  const entries = await loadCrewEntries(db);
  return (await loadPeople(db))
    .filter(({ person }) => person.active && mayAs(person.role, 'technician'))
    .map(({ person }) => ({
      person,
      crew: {
        id: person.id,
        initials: person.initials,
        entries: entries.get(person.id) ?? [],
        mayContainOn: (day) => mayContainOn(person, day),
      },
    }));
};

/** The people of so many days from today on; null where nobody's usual minutes are on record. */
export const loadCrew = async (
  db: Db,
  { today, days }: { readonly today: CalendarDate; readonly days: number },
): Promise<readonly CrewDay[] | null> =>
  crewDays(
    (await loadWorking(db)).map((w) => w.crew),
    Array.from({ length: days }, (_, day) => addDays(today, day)),
  );

/** The people of the plan, as its page shows them. */
export const loadCrewPage = async (db: Db, today: CalendarDate): Promise<CrewPageJson> => {
  const working = await loadWorking(db);
  const days = await loadCrew(db, { today, days: SHOWN_DAYS });
  return {
    people: working.map(({ person, crew }, i) => {
      const usual = usualMinutes(crew);
      return {
        id: person.id,
        initials: person.initials,
        name: person.name,
        usual: usual && [...usual],
        notContained: person.mayContain ? (paperGaps(person, today)[0] ?? null) : 'notSaid',
        ahead: (days ?? []).map((d) => d.people[i]?.minutes ?? 0),
      };
    }),
  };
};

/** Records what a person says of their time: usual minutes, days away, or work of a day handed over. */
export const logCrew = async ({ db, now }: Context, body: CrewBody): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: 'crew', body, at, answers: PlainAnswer }, async (tx) => {
    const { personId, entry, by } = body;
    const working = await loadWorking(tx);
    const known = (id: number): boolean => working.some((w) => w.person.id === id);
    if (!known(personId)) return fail(failure('crew.unknown', 'personId'));
    const today = dayAt(at, (await loadSite(tx)).timeZone);
    if ('from' in entry && entry.from > entry.to) return fail(failure('away.backwards', 'to'));
    if ('to' in entry && entry.kind !== 'handsOver' && entry.to < today) return fail(failure('plan.past', 'to'));
    if (entry.kind === 'handsOver') {
      if (entry.day < today) return fail(failure('plan.past', 'day'));
      if (entry.to !== null && (!known(entry.to) || entry.to === personId)) return fail(failure('crew.unknown', 'to'));
    }
    return ok({ id: await insertCrewEntry(tx, { personId, entry, at, by }) });
  });
};
