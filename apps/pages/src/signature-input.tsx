import { color, font } from '@mailbag/look';
import SignaturePad from 'signature_pad';
import { useEffect, useId, useRef, useState } from 'react';
import { Button, Input, Pad, Words } from './styles';
import type { Say } from './words';

/** Pixels of a typed signature. */
const [WIDTH, HEIGHT] = [640, 180];

/** A name written as a signature, as a picture with nothing behind it. */
function written(name: string): string {
  const canvas = document.createElement('canvas');
  Object.assign(canvas, { width: WIDTH, height: HEIGHT });
  const pen = canvas.getContext('2d')!;
  pen.fillStyle = color.ink;
  pen.textBaseline = 'middle';
  pen.textAlign = 'center';
  for (let size = 72; size > 16; size -= 4) {
    pen.font = `italic ${size}px ${font.head}`;
    if (pen.measureText(name).width < WIDTH - 40) break;
  }
  pen.fillText(name, WIDTH / 2, HEIGHT / 2);
  return canvas.toDataURL('image/png');
}

interface Props {
  id: string;
  value: string;
  label: string;
  describedBy: string | undefined;
  isWrong: boolean;
  say: Say;
  onChange: (picture: string) => void;
}

/** A signature: drawn with a finger or the mouse, or typed. */
export function SignatureInput({ id, value, label, describedBy, isWrong, say, onChange }: Props) {
  const [isTyped, setTyped] = useState(false);
  const [name, setName] = useState('');
  const canvas = useRef<HTMLCanvasElement>(null);
  const pad = useRef<SignaturePad | null>(null);
  const change = useRef(onChange);
  const typedId = useId();
  const drawn = useRef(value);
  useEffect(() => {
    change.current = onChange;
    drawn.current = value;
  });

  useEffect(() => {
    const own = canvas.current;
    if (isTyped || !own) return;
    const { width, height } = own.getBoundingClientRect();
    const scale = Math.max(1, window.devicePixelRatio);
    Object.assign(own, { width: width * scale, height: height * scale });
    own.getContext('2d')!.scale(scale, scale);
    const made = new SignaturePad(own, { penColor: color.ink, minWidth: 1, maxWidth: 3 });
    if (drawn.current) void made.fromDataURL(drawn.current, { width, height });
    made.addEventListener('endStroke', () => change.current(made.toDataURL('image/png')));
    pad.current = made;
    return () => made.off();
    // What is drawn already is shown once; afterwards the pad has it.
  }, [isTyped]);

  return (
    <>
      {isTyped ? (
        <>
          <Words htmlFor={typedId}>{say('typeName')}</Words>
          <Input
            id={typedId}
            value={name}
            autoComplete="name"
            aria-describedby={describedBy}
            aria-invalid={isWrong}
            onChange={({ target }) => {
              setName(target.value);
              onChange(target.value.trim() === '' ? '' : written(target.value.trim()));
            }}
          />
          {value && <img src={value} alt={name} width={320} height={90} />}
        </>
      ) : (
        <Pad ref={canvas} id={id} role="img" tabIndex={-1} aria-label={`${label}: ${say('drawHere')}`} aria-describedby={describedBy} />
      )}
      <div>
        <Button
          type="button"
          data-small
          onClick={() => {
            pad.current?.clear();
            setName('');
            onChange('');
          }}
        >
          {say('clear')}
        </Button>{' '}
        <Button
          type="button"
          data-small
          onClick={() => {
            onChange('');
            setName('');
            setTyped(!isTyped);
          }}
        >
          {say(isTyped ? 'drawn' : 'typed')}
        </Button>
      </div>
    </>
  );
}
