import { useId, useState } from 'react';
import { Button, FaultLine, Input, Quiet, Ways, Words } from './styles';
import type { Say } from './words';

interface Props {
  /** Days for which the link holds. */
  days: number;
  say: Say;
  onMail: (address: string) => Promise<void>;
}

/** A link to go on later, mailed to the visitor's own address. */
export function GoOnLater({ days, say, onMail }: Props) {
  const [isOpen, setOpen] = useState(false);
  const [address, setAddress] = useState('');
  const [state, setState] = useState<'open' | 'sending' | 'sent' | 'failed'>('open');
  const id = useId();
  if (state === 'sent') return <Quiet role="status">{say('laterSent', { days })}</Quiet>;
  if (!isOpen)
    return (
      <Button data-small onClick={() => setOpen(true)}>
        {say('later')}
      </Button>
    );
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        setState('sending');
        onMail(address.trim()).then(
          () => setState('sent'),
          () => setState('failed'),
        );
      }}
    >
      <Words htmlFor={id}>{say('laterAddress')}</Words>
      <Ways>
        <Input
          id={id}
          type="email"
          autoComplete="email"
          autoFocus
          value={address}
          aria-invalid={state === 'failed'}
          onChange={({ target }) => {
            setAddress(target.value);
            setState('open');
          }}
        />
        <Button data-small type="submit" disabled={address.trim() === '' || state === 'sending'}>
          {say('laterSend')}
        </Button>
      </Ways>
      {state === 'failed' && <FaultLine role="alert">{say('laterFailed')}</FaultLine>}
    </form>
  );
}
