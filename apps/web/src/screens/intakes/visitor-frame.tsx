import { t } from '@mailbag/core/words';
import type { IntakeAnswers, PageLanguage } from '@mailbag/core';
import { madeUpAnswers } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { FlaskConical, Monitor, Smartphone, Wand } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { queries } from '../../api/queries';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Bar } from '../../ui/layout';
import type { IntakeWork } from './intake-work';
import { TryOut, scribble } from './try-out';

const Ground = styled.div`
  flex: 1;
  min-height: 0;
  background: ${color.ground};
  display: flex;
  justify-content: center;
  padding: 12px;
  & > iframe {
    border: 1px solid ${color.line};
    border-radius: 6px;
    background: ${color.sheet};
    height: 100%;
    max-width: 100%;
  }
`;

/** Pixels of a phone and of a window on a desk. */
const widths = { phone: 390, desk: 640 } as const;

/** The page as a visitor sees it, with what is not published yet. */
export function VisitorFrame({
  work: { intake, document: plan, settle },
  question = null,
  language = null,
}: {
  work: IntakeWork;
  /** Whose step is shown; left out: the page begins at its beginning. */
  question?: string | null;
  /** Null: the one of this browser. */
  language?: PageLanguage | null;
}) {
  const [width, setWidth] = useState<keyof typeof widths>('phone');
  const [isTried, setTried] = useState(false);
  const [answers, setAnswers] = useState<IntakeAnswers>({});
  const { data: office } = useQuery(queries.office());
  const frame = useRef<HTMLIFrameElement>(null);
  const page = useMemo(() => {
    return {
      edition: 0,
      office: '',
      plan,
      forms: intake.templates.map(({ name }) => name),
      retentionDays: 0,
      closed: null,
    };
  }, [plan, intake.templates]);
  const words = { mailbagDraft: page, mailbagQuestion: question, mailbagLanguage: language };
  const latest = useRef(words);
  latest.current = words;
  const tell = (): void => frame.current?.contentWindow?.postMessage(latest.current, window.location.origin);
  useEffect(tell, [page, question, language]);
  useEffect(() => {
    const hear = ({ origin, source, data }: MessageEvent<{ mailbagPage?: string; answers?: IntakeAnswers } | null>): void => {
      if (origin !== window.location.origin || source !== frame.current?.contentWindow) return;
      if (data?.mailbagPage === 'ready') tell();
      if (data?.mailbagPage === 'answers') setAnswers(data.answers ?? {});
    };
    window.addEventListener('message', hear);
    return () => window.removeEventListener('message', hear);
  }, []);
  const fillIn = (): void => {
    const made = madeUpAnswers(plan, new Date().toLocaleDateString('sv-SE'), office?.country ?? '', scribble());
    frame.current?.contentWindow?.postMessage({ ...latest.current, mailbagAnswers: made }, window.location.origin);
  };
  return (
    <>
      <Bar style={isTried ? { display: 'none' } : undefined}>
        <Button small pressed={width === 'phone'} onPress={() => setWidth('phone')}>
          <Smartphone size={14} />
          {t`Phone`}
        </Button>
        <Button small pressed={width === 'desk'} onPress={() => setWidth('desk')}>
          <Monitor size={14} />
          {t`Desk`}
        </Button>
        <div className="fill" />
        <Button small onPress={fillIn}>
          <Wand size={14} />
          {t`Made-up answers`}
        </Button>
        <Button small onPress={() => setTried(true)}>
          <FlaskConical size={14} />
          {t`Try it`}
        </Button>
      </Bar>
      {isTried && <TryOut intake={intake} answers={answers} settle={settle} onBack={() => setTried(false)} />}
      {/* It stays where it is, with what stands in it. */}
      <Ground style={isTried ? { display: 'none' } : undefined}>
        <iframe ref={frame} src="/in/draft" title={t`The page as a visitor sees it`} style={{ width: widths[width] }} />
      </Ground>
    </>
  );
}
