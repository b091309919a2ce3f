import { X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { scannedTag } from '@/core/machine/tag-search';

interface ScanProps {
  readonly onTag: (tag: string) => void;
  readonly onClose: () => void;
}

/** So often a picture is looked at, ms. */
const EVERY_MS = 200;

type Reader = (picture: ImageData) => string | null;

/** What reads a square code out of a picture; fetched when it is asked for. */
const loadReader = async (): Promise<Reader> => {
  const { default: read } = await import('jsqr');
  return (picture) => read(picture.data, picture.width, picture.height)?.data ?? null;
};

const SORRY: Readonly<Record<string, string>> = {
  NotAllowedError: 'The camera is not allowed here. Allow it in the browser, or type the tag.',
  NotFoundError: 'No camera was found. Type the tag.',
};

/** Looks through the camera for the code of a label, and goes to its machine. */
export const Scan = ({ onTag, onClose }: ScanProps) => {
  const video = useRef<HTMLVideoElement>(null);
  const [words, setWords] = useState('Hold the code of the label before the camera.');
  useEffect(() => {
    let over = false;
    let timer: number | undefined;
    let stream: MediaStream | null = null;
    const canvas = document.createElement('canvas');
    const look = (reader: Reader): void => {
      const seen = video.current;
      const ink = canvas.getContext('2d', { willReadFrequently: true });
      if (!seen || !ink || seen.videoWidth === 0) return;
      canvas.width = seen.videoWidth;
      canvas.height = seen.videoHeight;
      ink.drawImage(seen, 0, 0);
      const found = reader(ink.getImageData(0, 0, canvas.width, canvas.height));
      if (found === null) return;
      const tag = scannedTag(found);
      if (tag === found) setWords('That code is not a machine label.');
      else {
        // Once is enough: a second one would break off the way there.
        window.clearInterval(timer);
        onTag(tag);
      }
    };
    const start = async () => {
      try {
        stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } });
        const reader = await loadReader();
        if (over || !video.current) return;
        video.current.srcObject = stream;
        await video.current.play();
        timer = window.setInterval(() => look(reader), EVERY_MS);
      } catch (error) {
        setWords(SORRY[error instanceof Error ? error.name : ''] ?? 'The camera does not work here. Type the tag.');
      }
    };
    void start();
    return () => {
      over = true;
      window.clearInterval(timer);
      stream?.getTracks().forEach((t) => t.stop());
    };
  }, [onTag]);
  return (
    <div className="border-base-300 border-b p-2">
      <div className="flex items-start gap-2">
        <p role="status" className="min-w-0 flex-1 text-sm">
          {words}
        </p>
        <button type="button" className="choice w-11 text-center" aria-label="Stop scanning" onClick={onClose}>
          <X size={18} aria-hidden="true" className="mx-auto" />
        </button>
      </div>
      <video ref={video} className="mt-1 w-full bg-black" muted playsInline aria-label="Camera picture" />
    </div>
  );
};
