import { Camera } from 'lucide-react';
import { useState } from 'react';
import { noAnswer } from '@/messages/failure-texts/no-answer';
import type { Problem } from '@/messages/problem';
import { newClientId, problemsIn } from './post-action';
import { FieldProblems } from './problems';
import { shrunkPicture } from './shrink-picture';

interface PictureButtonProps {
  readonly id: string;
  readonly label: string;
  /** Address of the upload, with its parameters besides the person. */
  readonly url: string;
  readonly query: Readonly<Record<string, string>>;
  readonly by: string;
  readonly onKept: () => void;
}

/** Takes a picture by the camera, or from a file, and keeps it. */
export const PictureButton = ({ id, label, url, query, by, onKept }: PictureButtonProps) => {
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const [busy, setBusy] = useState(false);
  const send = async (file: File) => {
    setBusy(true);
    const body = await shrunkPicture(file);
    const said = new URLSearchParams({ clientId: newClientId(), by: by.trim().toUpperCase(), ...query });
    const response = await fetch(`${url}?${said}`, {
      method: 'POST',
      headers: { 'content-type': body.type.startsWith('image/') ? body.type : 'application/octet-stream' },
      body,
    }).catch(() => null);
    setBusy(false);
    if (response?.ok) {
      setProblems([]);
      onKept();
      return;
    }
    setProblems(response ? await problemsIn(response) : [noAnswer()]);
  };
  return (
    <>
      <label className="choice inline-flex cursor-pointer items-center gap-1">
        <Camera size={18} aria-hidden="true" /> {busy ? 'Saving...' : label}
        <input
          type="file"
          accept="image/*"
          capture="environment"
          className="sr-only"
          disabled={busy}
          onChange={(e) => {
            const [file] = e.currentTarget.files ?? [];
            if (file) void send(file);
            e.currentTarget.value = '';
          }}
        />
      </label>
      <FieldProblems id={id} problems={problems} />
    </>
  );
};
