import { useState } from 'react';
import { PictureButton } from './picture-button';
import { InitialsField } from './text-fields';

interface KeptPictureProps {
  /** The address pictures are kept under; one is read at it with its number. */
  readonly url: '/api/stock/photos' | '/api/upgrades/photos';
  /** The subject of the picture, as parameters of the address. */
  readonly of: Readonly<Record<string, string>>;
  readonly name: string;
  /** The newest picture; null where there is none. */
  readonly photoId: number | null;
  readonly by: string;
}

/** What something looks like: the newest picture of it, and a way to add one. */
export const KeptPicture = ({ url, of, name, photoId, by: known }: KeptPictureProps) => {
  const [by, setBy] = useState(known);
  const id = `picture-${Object.values(of).join('-')}`;
  return (
    <div className="flex flex-wrap items-end gap-2">
      {photoId !== null && (
        <a href={`${url}/${photoId}`} target="_blank" rel="noreferrer">
          <img src={`${url}/${photoId}`} alt={name} className="border-base-300 max-h-64 max-w-full border" />
        </a>
      )}
      <InitialsField value={by} onValue={setBy} />
      {by.trim() === '' ? (
        <p className="soft text-sm">Sign with your initials to add a picture.</p>
      ) : (
        <PictureButton
          id={`${id}-problems`}
          label={photoId === null ? 'Add a picture' : 'A new picture'}
          url={url}
          query={of}
          by={by}
          onKept={() => window.location.reload()}
        />
      )}
    </div>
  );
};
