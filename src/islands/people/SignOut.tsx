import { useState } from 'react';
import { usePostOnce } from '@/ui/use-post-once';

/** Signs out here, or wherever this person is signed in. */
export const SignOut = ({ initials }: { readonly initials: string }) => {
  const [failed, setFailed] = useState(false);
  const post = usePostOnce();
  const send = async (everywhere: boolean) => {
    const posted = await post('/api/sessions/end', { everywhere });
    if (posted?.ok) window.location.assign('/sign-in');
    else if (posted) setFailed(true);
  };
  return (
    <details className="relative">
      <summary
        className="dial flex h-11 cursor-pointer list-none items-center px-2"
        aria-label={`Signed in as ${initials}`}
      >
        {initials}
      </summary>
      <div className="panel absolute right-0 z-50 grid w-56 gap-2 p-3">
        <button type="button" className="choice px-3 font-bold" onClick={() => void send(false)}>
          Sign out
        </button>
        <button type="button" className="choice px-3" onClick={() => void send(true)}>
          Sign out everywhere
        </button>
        {failed && <p role="status">That did not go through. Try again.</p>}
      </div>
    </details>
  );
};
