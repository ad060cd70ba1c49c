import { useState } from 'react';
import { Asked, Body, Button, Foot, Input, Note, Words } from './styles';
import type { Say } from './words';

interface Props {
  /** What was said is not it. */
  isWrong: boolean;
  say: Say;
  onSay: (phrase: string) => void;
}

/** Asks for the pass phrase of a page, before anything of it is shown. */
export function PhraseAsk({ isWrong, say, onSay }: Props) {
  const [phrase, setPhrase] = useState('');
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (phrase.trim() !== '') onSay(phrase.trim());
      }}
    >
      <Body>
        <h1>{say('phraseAsk')}</h1>
        <Asked>
          <Words htmlFor="phrase">{say('phrase')}</Words>
          <Input
            id="phrase"
            value={phrase}
            autoComplete="off"
            autoCapitalize="off"
            spellCheck={false}
            aria-invalid={isWrong}
            onChange={({ target }) => setPhrase(target.value)}
          />
        </Asked>
        {isWrong && <Note role="alert">{say('phraseWrong')}</Note>}
      </Body>
      <Foot>
        <Button data-main type="submit" disabled={phrase.trim() === ''}>
          {say('phraseOpen')}
        </Button>
      </Foot>
    </form>
  );
}
