import { Camera } from 'lucide-react';
import { useState } from 'react';
import { ProblemReply } from '@/contracts/responses';
import { failure } from '@/core/failure/failure';
import type { JobRecord } from '@/core/procedure/job-log';
import { type Problem, problemOf } from '@/messages/failures';
import { newClientId } from '@/ui/post-action';
import { FieldProblems } from '@/ui/problems';

const SIDE_PX = 1600;

/** Makes a phone's picture small enough to keep; what cannot be drawn is sent as it is, and the server says what it is. */
const shrunk = async (file: File): Promise<Blob> => {
  const bitmap = await createImageBitmap(file).catch(() => null);
  if (!bitmap) return file;
  const scale = Math.min(1, SIDE_PX / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(bitmap.width * scale);
  canvas.height = Math.round(bitmap.height * scale);
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve) => canvas.toBlob((blob) => resolve(blob ?? file), 'image/jpeg', 0.85));
};

interface PhotosProps {
  readonly tag: string;
  readonly record: JobRecord;
  readonly step: number;
  readonly by: string;
  readonly onKept: () => void;
}

/** Photos kept with the job at this step. */
export const Photos = ({ tag, record, step, by, onKept }: PhotosProps) => {
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const [busy, setBusy] = useState(false);
  const kept = record.events.flatMap(({ event }) =>
    event.kind === 'photo' && event.step === step ? [event.photoId] : [],
  );
  const send = async (file: File) => {
    setBusy(true);
    const body = await shrunk(file);
    const query = new URLSearchParams({
      clientId: newClientId(),
      by: by.trim().toUpperCase(),
      jobId: String(record.id),
      step: String(step),
    });
    const response = await fetch(`/api/machines/${encodeURIComponent(tag)}/jobs/photos?${query}`, {
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
    const problem = response ? ProblemReply.safeParse(await response.json()) : null;
    setProblems(problem?.success ? problem.data.problems : [problemOf(failure('action.busy'))]);
  };
  return (
    <div className="flex flex-wrap items-center gap-2">
      <label className="choice inline-flex cursor-pointer items-center gap-1">
        <Camera size={18} aria-hidden="true" /> {busy ? 'Saving...' : 'Photo'}
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
      {kept.map((id) => (
        <a key={id} href={`/api/photos/${id}`} target="_blank" rel="noreferrer">
          <img
            src={`/api/photos/${id}`}
            alt={`Taken at this step, no. ${id}`}
            className="border-base-300 h-11 border"
          />
        </a>
      ))}
      <FieldProblems id="photo-problems" problems={problems} />
    </div>
  );
};
