import type { JobRecord } from '@/core/procedure/job-log';
import { PictureButton } from '@/ui/picture-button';

interface PhotosProps {
  readonly tag: string;
  readonly record: JobRecord;
  readonly step: number;
  readonly by: string;
  readonly onKept: () => void;
}

/** Photos kept with the job at this step. */
export const Photos = ({ tag, record, step, by, onKept }: PhotosProps) => {
  const kept = record.events.flatMap(({ event }) =>
    event.kind === 'photo' && event.step === step ? [event.photoId] : [],
  );
  return (
    <div className="flex flex-wrap items-center gap-2">
      <PictureButton
        id="photo-problems"
        label="Photo"
        url={`/api/machines/${encodeURIComponent(tag)}/jobs/photos`}
        query={{ jobId: String(record.id), step: String(step) }}
        by={by}
        onKept={onKept}
      />
      {kept.map((id) => (
        <a key={id} href={`/api/photos/${id}`} target="_blank" rel="noreferrer">
          <img
            src={`/api/photos/${id}`}
            alt={`Taken at this step, no. ${id}`}
            className="border-base-300 h-11 border"
          />
        </a>
      ))}
    </div>
  );
};
