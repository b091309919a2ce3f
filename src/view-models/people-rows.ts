import { GAP_WORDS, ROLE_WORDS } from '@/messages/people';
import { type RegisterCell, type RegisterColumn, registerRow, type RegisterRow } from '@/contracts/register-row';
import type { loadPeoplePage } from '@/server/services/house/people-page';

type Line = Awaited<ReturnType<typeof loadPeoplePage>>['people'][number];

export const PEOPLE_COLUMNS: readonly RegisterColumn[] = [
  { id: 'initials', label: 'Initials', numeric: false, tight: true },
  { id: 'name', label: 'Name', numeric: false },
  { id: 'role', label: 'Role', numeric: false },
  { id: 'contained', label: 'Contained work', numeric: false },
];

const containedCell = ({ person, gaps }: Line): RegisterCell =>
  !person.mayContain
    ? { text: 'no', sort: 2 }
    : gaps.length > 0
      ? { text: gaps.map((g) => GAP_WORDS[g]).join(', '), tone: 'watch', sort: 1 }
      : { text: 'yes', tone: 'good', sort: 0 };

export const personRow = (line: Line): RegisterRow => {
  const { person, signsIn } = line;
  const note = person.active ? (signsIn ? '' : 'no passphrase yet') : 'no longer here';
  return registerRow(
    `/people/${encodeURIComponent(person.initials)}`,
    [{ text: person.initials }, { text: person.name, note }, { text: ROLE_WORDS[person.role] }, containedCell(line)],
    { gone: !person.active },
  );
};
