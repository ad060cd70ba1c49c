import type { IntakeQuestion } from '@mailbag/core/intake';
import type { RefObject } from 'react';
import styled from 'styled-components';
import { minutesFor } from './answer-words';
import type { PublicPage } from './api';
import { closedWords } from './closed-words';
import { OfficeText } from './office-text';
import { Body, Button, Foot, Note, Quiet } from './styles';
import type { Language, Say } from './words';

/** The first page of the form as it is on paper. */
const Picture = styled.img`
  float: inline-end;
  width: 120px;
  margin-block: 4px 12px;
  margin-inline-start: 16px;
  border: 1px solid #8a94a6;
  box-shadow: 0 2px 6px rgba(34, 48, 60, 0.18);
`;

interface Props {
  page: PublicPage;
  /** What is asked of everybody, and after the answers so far. */
  asked: readonly IntakeQuestion[];
  isPersonal: boolean;
  isTrial: boolean;
  heading: RefObject<HTMLHeadingElement | null>;
  language: Language;
  say: Say;
  onStart: () => void;
}

/** What the page is about, how long it takes, and what it fills in. */
export function FirstPage({ page, asked, isPersonal, isTrial, heading, language, say, onStart }: Props) {
  const { plan, forms, closed } = page;
  return (
    <>
      <Body>
        <h1 ref={heading} tabIndex={-1}>
          <OfficeText>{plan.title.trim() || plan.name}</OfficeText>
        </h1>
        {isTrial && <Note>{say('trial')}</Note>}
        {closed !== null && <Note>{closedWords(closed, plan.opening, language, say)}</Note>}
        {isPersonal && <Note>{say('personalKnown')}</Note>}
        {plan.picture && <Picture src={plan.picture.image} alt={say('picture', { form: forms[0] ?? '' })} />}
        {plan.intro && (
          <p style={{ whiteSpace: 'pre-line' }}>
            <OfficeText>{plan.intro}</OfficeText>
          </p>
        )}
        <p>{say('takes', { minutes: minutesFor(asked), count: asked.length })}</p>
        {forms.length > 0 && <p>{say('fills', { forms: forms.join(', ') })}</p>}
        <Quiet>{say('kept')}</Quiet>
      </Body>
      <Foot>
        <Button data-main disabled={closed !== null} onClick={onStart}>
          {say('start')}
        </Button>
      </Foot>
    </>
  );
}
