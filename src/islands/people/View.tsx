import { DayField } from '@/ui/day-field';
import { type SyntheticEvent, useState } from 'react';
import type { SecretReply } from '@/contracts/people';
import { type Person, type Role, ROLES } from '@/core/people/person';
import type { Problem } from '@/messages/failures';
import { ROLE_HELP, ROLE_WORDS } from '@/messages/people';
import { newClientId } from '@/ui/post-action';
import { postForSecret } from '@/ui/post-secret';
import { FieldProblems } from '@/ui/problems';
import { InitialsField, TextField } from '@/ui/text-fields';
import { usePostOnce } from '@/ui/use-post-once';

interface KeepProps {
  /** Null for a new person. */
  readonly person: Person | null;
  readonly by: string;
}

const Secret = ({ secret, what }: { readonly secret: SecretReply; readonly what: string }) => (
  <p role="status" className="bg-base-200 border-primary my-2 border-l-4 p-3">
    {what} It is shown this once: <strong className="dial text-lg break-all select-all">{secret.secret}</strong>
    {secret.until && <span className="soft block text-sm">Good until {secret.until.slice(0, 10)}, for one use.</span>}
  </p>
);

const RoleField = ({ role, setRole }: { readonly role: Role; readonly setRole: (role: Role) => void }) => (
  <fieldset>
    <legend className="caption">Role</legend>
    <div className="grid gap-1">
      {ROLES.map((r) => (
        <label key={r} className="flex min-h-11 items-center gap-2">
          <input type="radio" className="radio" checked={role === r} onChange={() => setRole(r)} />
          <span>
            <strong>{ROLE_WORDS[r]}</strong>: {ROLE_HELP[r]}
          </span>
        </label>
      ))}
    </div>
  </fieldset>
);

/** Adds or changes a person; makes a code for a passphrase. */
export const KeepPerson = ({ person, by: known }: KeepProps) => {
  const [by, setBy] = useState(known);
  const [initials, setInitials] = useState(person?.initials ?? '');
  const [name, setName] = useState(person?.name ?? '');
  const [role, setRole] = useState<Role>(person?.role ?? 'technician');
  const [mayContain, setMayContain] = useState(person?.mayContain ?? false);
  const [maskFitOn, setMaskFitOn] = useState(person?.maskFitOn ?? '');
  const [trainedOn, setTrainedOn] = useState(person?.trainedOn ?? '');
  const [active, setActive] = useState(person?.active ?? true);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const [secret, setSecret] = useState<SecretReply | null>(null);
  const post = usePostOnce();
  const send = async (event: SyntheticEvent) => {
    event.preventDefault();
    const posted = await post('/api/people', {
      by,
      initials,
      name,
      role,
      mayContain,
      maskFitOn: maskFitOn === '' ? null : maskFitOn,
      trainedOn: trainedOn === '' ? null : trainedOn,
      active,
    });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (posted.ok) window.location.reload();
  };
  const code = async () => {
    const told = await postForSecret('/api/people/code', { clientId: newClientId(), by, initials });
    setProblems(told.ok ? [] : told.problems);
    if (told.ok) setSecret(told.secret);
  };
  return (
    <form className="grid gap-3 py-3" onSubmit={(e) => void send(e)}>
      <div className="flex flex-wrap gap-3">
        {!person && <InitialsField value={initials} onValue={setInitials} />}
        <TextField label="Name" value={name} maxLength={80} onValue={setName} />
      </div>
      <RoleField role={role} setRole={setRole} />
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={mayContain}
          onChange={(e) => setMayContain(e.target.checked)}
        />
        May do contained work: trained for it, and the mask fits
      </label>
      <div className="flex flex-wrap gap-3">
        <DayField label="Mask fit test" value={maskFitOn} onValue={setMaskFitOn} />
        <DayField label="Trained" value={trainedOn} onValue={setTrainedOn} />
      </div>
      {person && (
        <label className="flex min-h-11 items-center gap-2">
          <input type="checkbox" className="checkbox" checked={active} onChange={(e) => setActive(e.target.checked)} />
          Works here
        </label>
      )}
      <FieldProblems id={`person-${person?.initials ?? 'new'}`} problems={problems} />
      {secret && <Secret secret={secret} what={`Code for ${initials} to choose a passphrase with.`} />}
      <div className="flex flex-wrap items-end gap-2">
        <InitialsField value={by} onValue={setBy} />
        <button className="go">{person ? 'Save' : 'Add'}</button>
        {person?.active && (
          <button type="button" className="choice px-4" onClick={() => void code()}>
            Code for a passphrase
          </button>
        )}
      </div>
    </form>
  );
};
