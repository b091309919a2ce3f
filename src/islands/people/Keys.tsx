import { type SyntheticEvent, useState } from 'react';
import type { SecretReply } from '@/contracts/people';
import { KEY_PURPOSES, type KeyPurpose } from '@/core/people/person';
import type { Problem } from '@/messages/failures';
import { KEY_WORDS } from '@/messages/people';
import { newClientId } from '@/ui/post-action';
import { postForSecret } from '@/ui/post-secret';
import { FieldProblems } from '@/ui/problems';
import { TextField } from '@/ui/text-fields';
import { usePostOnce } from '@/ui/use-post-once';

/** Makes a key for a program; it is shown once. */
export const MakeKey = ({ by }: { readonly by: string }) => {
  const [purpose, setPurpose] = useState<KeyPurpose>('calendar');
  const [name, setName] = useState('');
  const [made, setMade] = useState<{ readonly secret: SecretReply; readonly purpose: KeyPurpose } | null>(null);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const send = async (event: SyntheticEvent) => {
    event.preventDefault();
    const told = await postForSecret('/api/keys', { clientId: newClientId(), by, purpose, name });
    setProblems(told.ok ? [] : told.problems);
    if (told.ok) setMade({ secret: told.secret, purpose });
  };
  return (
    <form className="grid gap-2 py-2" onSubmit={(e) => void send(e)}>
      <div className="flex flex-wrap items-end gap-2">
        <label className="block">
          <span className="caption">For</span>
          <select className="field" value={purpose} onChange={(e) => setPurpose(e.target.value as KeyPurpose)}>
            {KEY_PURPOSES.map((p) => (
              <option key={p} value={p}>
                {KEY_WORDS[p]}
              </option>
            ))}
          </select>
        </label>
        <TextField label="Whose, or where" value={name} maxLength={80} onValue={setName} />
        <button className="choice px-4 font-bold">Make a key</button>
      </div>
      <FieldProblems id="key-problems" problems={problems} />
      {made && (
        <p role="status" className="bg-base-200 border-primary border-l-4 p-3">
          Shown this once: <strong className="dial break-all select-all">{made.secret.secret}</strong>
          <span className="soft block text-sm">
            {made.purpose === 'calendar' && 'Subscribe to /api/plan/calendar.ics?key=… with it.'}
            {made.purpose === 'label' && 'Print /m/TAG?key=… on the label: it shows that page and nothing else.'}
            {made.purpose === 'meter' && 'The bridge sends it as Authorization: Bearer … with its lines.'}
          </span>
        </p>
      )}
    </form>
  );
};

/** Takes a key back: what held it reads nothing from then on. */
export const WithdrawKey = ({ id, by }: { readonly id: number; readonly by: string }) => {
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const send = async () => {
    const posted = await post('/api/keys/withdraw', { by, id });
    if (posted?.ok) window.location.reload();
    else if (posted) setProblems(posted.problems);
  };
  return (
    <>
      <button type="button" className="choice px-3" onClick={() => void send()}>
        Withdraw
      </button>
      <FieldProblems id={`key-${id}`} problems={problems} />
    </>
  );
};

/** Whether the server's own machine needs a passphrase. */
export const OpenHere = ({ openHere, by }: { readonly openHere: boolean; readonly by: string }) => {
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const send = async () => {
    const posted = await post('/api/open-here', { by, openHere: !openHere });
    if (posted?.ok) window.location.reload();
    else if (posted) setProblems(posted.problems);
  };
  return (
    <>
      <button type="button" className="choice px-4" onClick={() => void send()}>
        {openHere ? 'Ask for a passphrase here too' : 'Let this machine in without one'}
      </button>
      <FieldProblems id="open-here" problems={problems} />
    </>
  );
};
