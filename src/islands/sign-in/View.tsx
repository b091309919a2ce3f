import { type SyntheticEvent, useState } from 'react';
import type { Problem } from '@/messages/failures';
import { FieldProblems } from '@/ui/problems';
import { TextField } from '@/ui/text-fields';
import { usePostOnce } from '@/ui/use-post-once';

interface SignInProps {
  /** Where to go then: a page of this site. */
  readonly to: string;
  /** Nobody can sign in yet: the first lead uses the code from the console. */
  readonly first: boolean;
  readonly least: number;
}

interface PassphraseProps {
  readonly label: string;
  readonly value: string;
  readonly fresh: boolean;
  readonly onValue: (value: string) => void;
}

const Passphrase = ({ label, value, fresh, onValue }: PassphraseProps) => (
  <label className="block">
    <span className="caption">{label}</span>
    <input
      className="field"
      type="password"
      value={value}
      maxLength={200}
      autoComplete={fresh ? 'new-password' : 'current-password'}
      onChange={(e) => onValue(e.currentTarget.value)}
    />
  </label>
);

/** Signs in, or chooses a passphrase with a code. */
export const SignIn = ({ to, first, least }: SignInProps) => {
  const [withCode, setWithCode] = useState(first);
  const [initials, setInitials] = useState('');
  const [name, setName] = useState('');
  const [code, setCode] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const send = async (event: SyntheticEvent) => {
    event.preventDefault();
    const posted = await (withCode
      ? post('/api/sessions/passphrase', { initials, name, code, passphrase })
      : post('/api/sessions', { initials, passphrase }));
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (posted.ok) window.location.assign(to);
  };
  return (
    <form className="grid max-w-sm gap-3" onSubmit={(e) => void send(e)}>
      <TextField label="Initials" value={initials} maxLength={12} onValue={setInitials} />
      {withCode && (
        <>
          {first && <TextField label="Your name" value={name} maxLength={80} onValue={setName} />}
          <TextField
            label={first ? 'Code from the console of the server' : 'Code from a lead'}
            value={code}
            maxLength={40}
            onValue={setCode}
          />
        </>
      )}
      <Passphrase
        label={withCode ? `New passphrase, at least ${least} characters: a few words are best` : 'Passphrase'}
        value={passphrase}
        fresh={withCode}
        onValue={setPassphrase}
      />
      <FieldProblems id="sign-in-problems" problems={problems} />
      <div className="flex flex-wrap gap-2">
        <button className="go">{withCode ? 'Choose it and sign in' : 'Sign in'}</button>
        {!first && (
          <button type="button" className="choice px-4" onClick={() => setWithCode(!withCode)}>
            {withCode ? 'I have a passphrase' : 'I have a code'}
          </button>
        )}
      </div>
    </form>
  );
};
