import { useState } from 'react';
import { PictureButton } from '@/ui/picture-button';
import { InitialsField } from '@/ui/text-fields';

interface PartPhotoProps {
  readonly partId: number;
  readonly name: string;
  /** The newest picture; null where there is none. */
  readonly photoId: number | null;
  readonly by: string;
}

/** What the part looks like, so that the right one is taken off the shelf. */
export const PartPhoto = ({ partId, name, photoId, by: known }: PartPhotoProps) => {
  const [by, setBy] = useState(known);
  return (
    <div className="flex flex-wrap items-end gap-2">
      {photoId !== null && (
        <a href={`/api/stock/photos/${photoId}`} target="_blank" rel="noreferrer">
          <img src={`/api/stock/photos/${photoId}`} alt={name} className="border-base-300 max-h-64 max-w-full border" />
        </a>
      )}
      <InitialsField value={by} onValue={setBy} />
      {by.trim() === '' ? (
        <p className="soft text-sm">Sign with your initials to add a picture.</p>
      ) : (
        <PictureButton
          id="part-photo-problems"
          label={photoId === null ? 'Add a picture' : 'A new picture'}
          url="/api/stock/photos"
          query={{ partId: String(partId) }}
          by={by}
          onKept={() => window.location.reload()}
        />
      )}
    </div>
  );
};
