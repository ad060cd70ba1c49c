import { useState } from 'react';
import type { PersonalAnswer } from './api';
import { Refused, openPersonal } from './api';
import { Asked, Body, Button, Foot, Input, Note, Words } from './styles';
import type { Say } from './words';

interface Props {
  word: string;
  token: string;
  /** What must be said first, in the office's words. */
  asks: string;
  say: Say;
  onOpen: (answer: PersonalAnswer, check: string) => Promise<void>;
}

/** Asks for what only the recipient and the office know, before anything is shown. */
export function PersonalAsk({ word, token, asks, say, onOpen }: Props) {
  const [check, setCheck] = useState('');
  const [state, setState] = useState<'open' | 'asking' | 'wrong' | { why: string }>('open');
  const open = async (): Promise<void> => {
    setState('asking');
    try {
      const answer = await openPersonal(word, token, check.trim());
      if (answer.asks === null) await onOpen(answer, check.trim());
      else setState('wrong');
    } catch (error) {
      setState({ why: error instanceof Refused ? error.message : say('failed') });
    }
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (check.trim() !== '') void open();
      }}
    >
      <Body>
        <h1>{say('personalAsk')}</h1>
        <Asked>
          <Words htmlFor="check">{asks}</Words>
          <Input
            id="check"
            value={check}
            autoComplete="off"
            aria-invalid={state === 'wrong'}
            onChange={({ target }) => setCheck(target.value)}
          />
        </Asked>
        {state === 'wrong' && <Note role="alert">{say('personalWrong')}</Note>}
        {typeof state === 'object' && <Note role="alert">{state.why}</Note>}
      </Body>
      <Foot>
        <Button data-main type="submit" disabled={check.trim() === '' || state === 'asking'}>
          {say('personalOpen')}
        </Button>
      </Foot>
    </form>
  );
}
