import { useState } from 'react';
import { FaultLine, Input } from './styles';
import type { Say } from './words';

/** Pixels of the longer side, and quality, so that a photo of a phone fits into what the server takes. */
const LONGEST_SIDE = 1400;
const QUALITY = 0.8;

/** A picture made smaller and written anew, so that nothing but its pixels leaves the device. @throws Error when it is none */
async function madeSmaller(file: File): Promise<string> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  const pen = canvas.getContext('2d')!;
  pen.fillStyle = '#fff';
  pen.fillRect(0, 0, canvas.width, canvas.height);
  pen.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return canvas.toDataURL('image/jpeg', QUALITY);
}

interface Props {
  id: string;
  value: string;
  describedBy: string | undefined;
  isWrong: boolean;
  say: Say;
  onChange: (picture: string) => void;
}

/** A photo or another picture. */
export function PictureInput({ id, value, describedBy, isWrong, say, onChange }: Props) {
  const [isBroken, setBroken] = useState(false);
  return (
    <>
      <Input
        id={id}
        type="file"
        accept="image/png,image/jpeg"
        aria-describedby={describedBy}
        aria-invalid={isWrong || isBroken}
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          if (!file) return;
          void madeSmaller(file).then(
            (picture) => {
              setBroken(false);
              onChange(picture);
            },
            () => {
              setBroken(true);
              onChange('');
            },
          );
        }}
      />
      {isBroken && <FaultLine>{say('photoWrong')}</FaultLine>}
      {value && <img src={value} alt={say('photoTaken')} height={120} />}
    </>
  );
}
