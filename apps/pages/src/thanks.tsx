import { useEffect, useRef, useState } from 'react';
import type { Receipt } from './api';
import { copyAddress, loadReceipt, zipAddress } from './api';
import { MailCopies } from './mail-copies';
import { Body, Button, ButtonLink, Foot, Note, Quiet } from './styles';
import { OfficeText } from './office-text';
import type { Language, Say } from './words';

/** Milliseconds between two looks whether the copies are made. */
const LOOK_AGAIN = 1000;

interface Props {
  receipt: string;
  /** What the office says at the end; empty: nothing. */
  words: string;
  language: Language;
  say: Say;
  onAnew: () => void;
}

/** After submitting: the number, and the copies as soon as they are made. */
export function Thanks({ receipt: key, words, language, say, onAnew }: Props) {
  const [receipt, setReceipt] = useState<Receipt | null>(null);
  const [isAway, setAway] = useState(false);
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    heading.current?.focus();
    let timer: ReturnType<typeof setTimeout> | undefined;
    let isOver = false;
    const look = async (): Promise<void> => {
      try {
        const now = await loadReceipt(key);
        if (isOver) return;
        setAway(false);
        setReceipt(now);
        if (now.isMaking) timer = setTimeout(() => void look(), LOOK_AGAIN);
      } catch {
        if (isOver) return;
        setAway(true);
        timer = setTimeout(() => void look(), 5 * LOOK_AGAIN);
      }
    };
    void look();
    return () => {
      isOver = true;
      clearTimeout(timer);
    };
  }, [key]);
  const copies = receipt && !receipt.isMaking ? receipt.copies : [];
  return (
    <>
      <Body>
        <h1 ref={heading} tabIndex={-1}>
          {say('thanks')}
        </h1>
        {receipt && <p role="status">{say('received', { number: receipt.number })}</p>}
        {words && (
          <p style={{ whiteSpace: 'pre-line' }}>
            <OfficeText>{words}</OfficeText>
          </p>
        )}
        {isAway && <Note>{say('failed')}</Note>}
        {receipt?.isMaking && <Quiet role="status">{say('making')}</Quiet>}
        {receipt && !receipt.isMaking && copies.length === 0 && <p>{say('office')}</p>}
        {copies.length > 0 && (
          <>
            <h2>{say('copies', { count: copies.length })}</h2>
            {copies.map((name, index) => (
              <ButtonLink key={index} href={copyAddress(key, index)} download={name}>
                {say('download', { name })}
              </ButtonLink>
            ))}
            {copies.length > 1 && (
              <ButtonLink href={zipAddress(key)} download>
                {say('zip')}
              </ButtonLink>
            )}
            {receipt?.canMail && <MailCopies receipt={key} language={language} say={say} />}
          </>
        )}
      </Body>
      <Foot>
        <Button onClick={onAnew}>{say('startAnew')}</Button>
      </Foot>
    </>
  );
}
