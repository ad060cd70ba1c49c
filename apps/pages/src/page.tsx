import type { AnswerValue, IntakeAnswers, IntakeQuestion, ShownSection } from '@mailbag/core/intake';
import { isAnswered, isPictureKind, shownSections } from '@mailbag/core/intake';
import { useEffect, useRef, useState } from 'react';
import type { Fault, PublicPage } from './api';
import { Refused, checkAnswers, mailLink, submit } from './api';
import { answerWords, minutesFor } from './answer-words';
import { GoOnLater } from './go-on-later';
import { FaultSummary } from './fault-summary';
import { FilledForm } from './filled-form';
import { FirstPage } from './first-page';
import { lastingStorage } from './browser-storage';
import type { SavedVisit } from './saved-visit';
import { keepVisit, savedVisit, newKey } from './saved-visit';
import { OfficeText } from './office-text';
import type { PersonalVisit } from './personal-token';
import { PrintedForm } from './printed-form';
import { Question } from './question';
import {
  Answers,
  Body,
  Button,
  Foot,
  Head,
  HeadLine,
  LanguageSelect,
  Note,
  Office,
  Progress,
  Quiet,
  SectionLine,
  Trap,
  Ways,
} from './styles';
import { Thanks } from './thanks';
import type { Language, Say } from './words';
import { catalogues, languages } from './words';

interface Props {
  word: string;
  page: PublicPage;
  /** Where what is typed is kept in this browser. */
  place: string;
  /** By what they came who were given a link of their own; null: by the page's own address. */
  personal: PersonalVisit | null;
  /** What the office knows of them already. */
  known: IntakeAnswers;
  /** It is only looked at, by whoever makes it. */
  isTrial: boolean;
  /** The question that is worked on beside the page; null: none is. */
  pointed: string | null;
  language: Language;
  onLanguage: (language: Language) => void;
  say: Say;
}

const today = (): string => new Date().toLocaleDateString('sv-SE');
const initialAnswers = ({ plan }: PublicPage): IntakeAnswers =>
  Object.fromEntries(Object.values(plan.questions).flatMap(({ id, initial }) => (initial === '' ? [] : [[id, initial]])));
const begin = (page: PublicPage, known: IntakeAnswers, isFilled: boolean): SavedVisit => ({
  edition: page.edition,
  answers: { ...initialAnswers(page), ...known },
  // Whoever fills it in with made-up answers sees them all.
  step: isFilled ? Infinity : 0,
  key: newKey(),
  isSent: false,
});

/** The page of an intake: what it is about, its steps, what was answered, and thanks. */
export function Page({ word, page, place, personal, known, isTrial, pointed, language, onLanguage, say }: Props) {
  const [visit, setVisit] = useState(
    () => (isTrial ? null : savedVisit(place, lastingStorage)) ?? begin(page, known, isTrial && Object.keys(known).length > 0),
  );
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  /** How often what is wrong was summed up for this step; 0: not yet. */
  const [summed, setSummed] = useState(0);
  const [isSeen, setSeen] = useState(false);
  const [sending, setSending] = useState<'no' | 'yes' | 'failed' | { why: string }>('no');
  const heading = useRef<HTMLHeadingElement>(null);
  const sections = shownSections(page.plan, visit.answers, today());
  const last = sections.length + 1;
  const step = Math.min(visit.step, last);
  const section = sections[step - 1];
  const latest = useRef(visit);
  useEffect(() => void (latest.current = visit));

  useEffect(() => {
    if (isTrial) window.parent.postMessage({ mailbagPage: 'answers', answers: visit.answers }, location.origin);
  }, [isTrial, visit.answers]);
  const change = (next: Partial<SavedVisit>): void => {
    const whole = { ...latest.current, ...next };
    latest.current = whole;
    setVisit(whole);
    if (!isTrial) keepVisit(place, whole, lastingStorage);
  };
  /**
   * Where the visitor went on by themselves: to a question, or somewhere that is read from its heading on (null).
   * What the office points at leaves the focus on its own screen.
   */
  const [aim, setAim] = useState<{ question: string | null } | null>(null);
  useEffect(() => {
    if (aim) (aim.question === null ? heading.current : document.getElementById(`q-${aim.question}`))?.focus();
  }, [aim]);
  const see = (isWanted: boolean): void => {
    setSeen(isWanted);
    setAim({ question: null });
  };
  const goTo = (to: number): void => {
    setSummed(0);
    see(false);
    change({ step: to });
    window.scrollTo(0, 0);
  };
  const goToQuestion = (id: string): void => {
    const asked = sections.findIndex(({ questions }) => questions.some((one) => one.id === id)) + 1;
    if (isSeen || asked !== step) goTo(asked);
    setAim({ question: id });
  };

  // Whoever works on a question sees the step in which it is asked.
  const pointedStep = pointed === null ? 0 : sections.findIndex(({ questions }) => questions.some(({ id }) => id === pointed)) + 1;
  useEffect(() => {
    if (pointedStep > 0) setVisit((before) => ({ ...before, step: pointedStep }));
  }, [pointed, pointedStep]);
  useEffect(() => {
    if (pointed !== null) document.getElementById(`q-${pointed}`)?.scrollIntoView({ block: 'center' });
  }, [pointed, step]);

  const without = (ids: readonly string[]): Fault[] => faults.filter(({ question }) => !ids.includes(question));
  const answer = (question: IntakeQuestion, value: AnswerValue): void => {
    change({ answers: { ...latest.current.answers, [question.id]: value } });
    setFaults(without([question.id]));
  };
  /** What is wrong with what somebody has typed; where the server cannot be asked, it looks again when all is sent. */
  const look = async (questions: readonly IntakeQuestion[]): Promise<Fault[]> => {
    const own = Object.fromEntries(
      questions.flatMap(({ id, kind }) => {
        const given = latest.current.answers[id];
        return given === undefined || given.length === 0 || isPictureKind(kind) ? [] : [[id, given] as const];
      }),
    );
    if (isTrial || Object.keys(own).length === 0) return [];
    return checkAnswers(word, visit.edition, own).catch(() => []);
  };
  const leave = async (question: IntakeQuestion): Promise<void> => {
    const found = await look([question]);
    if (found.length > 0) setFaults((before) => [...before.filter((one) => one.question !== question.id), ...found]);
  };
  const next = async ({ questions }: ShownSection): Promise<void> => {
    const missing = questions
      .filter(({ id, required, kind }) => required && kind !== 'notice' && (latest.current.answers[id] ?? '').length === 0)
      .map(({ id }): Fault => ({ question: id, code: 'missing', detail: '' }));
    const found = [...missing, ...(await look(questions))];
    setFaults([...without(questions.map(({ id }) => id)), ...found]);
    if (found.length > 0) setSummed((before) => before + 1);
    else goTo(step + 1);
  };
  const send = async (website: string): Promise<void> => {
    setSending('yes');
    try {
      const { answers, key, edition } = latest.current;
      const answered = await submit(word, { edition, answers, key, language, website, ...(personal && { personal }) });
      setSending('no');
      if (answered.number !== null) return change({ isSent: true });
      setFaults(answered.faults);
      setSummed((before) => before + 1);
    } catch (error) {
      setSending(error instanceof Refused ? { why: error.message } : 'failed');
    }
  };

  const all = sections.flatMap(({ questions }) => questions.filter(isAnswered));
  const left = minutesFor(sections.slice(Math.max(0, step - 1)).flatMap(({ questions }) => questions));
  const title = page.plan.title.trim() || page.plan.name;
  const head = (
    <>
      {!visit.isSent && <PrintedForm page={page} answers={visit.answers} say={say} />}
      <Head>
        <HeadLine>
          <Office>{page.office || <OfficeText>{title}</OfficeText>}</Office>
          <LanguageSelect value={language} aria-label="Language" onChange={({ target }) => onLanguage(target.value as Language)}>
            {languages.map((one) => (
              <option key={one} value={one}>
                {catalogues[one].language}
              </option>
            ))}
          </LanguageSelect>
        </HeadLine>
        {step > 0 && !visit.isSent && (
          <>
            <Progress aria-hidden>
              {Array.from({ length: last }, (_, at) => (
                <span key={at} data-state={at + 1 < step ? 'done' : at + 1 === step ? 'now' : 'open'} />
              ))}
            </Progress>
            <Quiet>
              {say('step', { step, steps: last })}
              {step < last && ` · ${say('left', { minutes: left })}`}
            </Quiet>
          </>
        )}
      </Head>
    </>
  );
  const summary = summed > 0 && faults.length > 0 && (
    <FaultSummary key={summed} faults={faults} sections={sections} say={say} onQuestion={goToQuestion} />
  );

  if (visit.isSent)
    return (
      <>
        {head}
        <Thanks
          receipt={visit.key}
          words={page.plan.after.thanks}
          language={language}
          say={say}
          onAnew={() => {
            keepVisit(place, null, lastingStorage);
            // What was published meanwhile is asked from now on.
            location.reload();
          }}
        />
      </>
    );
  if (isSeen)
    return (
      <>
        {head}
        <Body>
          <h1 ref={heading} tabIndex={-1}>
            <OfficeText>{title}</OfficeText>
          </h1>
          <FilledForm
            word={word}
            edition={visit.edition}
            answers={visit.answers}
            personal={personal}
            forms={page.forms}
            wordsOf={(id) => all.find((one) => one.id === id)?.words ?? null}
            say={say}
            onQuestion={goToQuestion}
          />
        </Body>
        <Foot>
          <Button onClick={() => see(false)}>{say('hide')}</Button>
        </Foot>
      </>
    );
  if (step === 0)
    return (
      <>
        {head}
        <FirstPage
          page={page}
          asked={all}
          isPersonal={personal !== null}
          isTrial={isTrial}
          heading={heading}
          language={language}
          say={say}
          onStart={() => goTo(1)}
        />
      </>
    );
  if (section)
    return (
      <>
        {head}
        <Body>
          <h1 ref={heading} tabIndex={-1}>
            <OfficeText>{section.section.title || title}</OfficeText>
          </h1>
          {summary}
          {section.questions.map((question) => (
            <Question
              key={question.id}
              question={question}
              answer={visit.answers[question.id]}
              fault={faults.find((fault) => fault.question === question.id)}
              say={say}
              onChange={(value) => answer(question, value)}
              onLeave={() => void leave(question)}
            />
          ))}
        </Body>
        <Foot>
          {!isTrial && <Button onClick={() => see(true)}>{say('see')}</Button>}
          <Ways>
            <Button onClick={() => goTo(step - 1)}>{say('back')}</Button>
            <Button data-main onClick={() => void next(section)}>
              {say('next', { title: sections[step]?.section.title ?? say('check') })}
            </Button>
          </Ways>
          {page.retentionDays > 0 && !personal && (
            <GoOnLater
              days={page.retentionDays}
              say={say}
              onMail={(email) => {
                const { answers, key, edition, step: own } = latest.current;
                return mailLink(word, { edition, answers, key, step: own, language, email });
              }}
            />
          )}
        </Foot>
      </>
    );
  return (
    <>
      {head}
      <Body>
        <h1 ref={heading} tabIndex={-1}>
          {say('check')}
        </h1>
        {summary}
        {sending === 'failed' && <Note role="alert">{say('notSent')}</Note>}
        {typeof sending === 'object' && <Note role="alert">{sending.why}</Note>}
        <p>{say('checkIntro')}</p>
        {sections.map(({ section: { id, title: name }, questions }, at) => (
          <section key={id}>
            <SectionLine>
              <h2>
                <OfficeText>{name}</OfficeText>
              </h2>
              <Button data-small aria-label={`${say('change')}: ${name}`} onClick={() => goTo(at + 1)}>
                {say('change')}
              </Button>
            </SectionLine>
            <Answers>
              {questions.filter(isAnswered).map((question) => (
                <div key={question.id}>
                  <dt>
                    <OfficeText>{question.words}</OfficeText>
                  </dt>
                  <dd>
                    <AnswerText question={question} answer={visit.answers[question.id]} say={say} />
                  </dd>
                </div>
              ))}
            </Answers>
          </section>
        ))}
      </Body>
      <SendFoot
        isTrial={isTrial}
        isSending={sending === 'yes'}
        say={say}
        onSee={() => see(true)}
        onBack={() => goTo(step - 1)}
        onSend={send}
      />
    </>
  );
}

function AnswerText({ question, answer, say }: { question: IntakeQuestion; answer: AnswerValue | undefined; say: Say }) {
  if (isPictureKind(question.kind))
    return answer ? <img src={String(answer)} alt={question.words} /> : <Quiet as="span">{say('nothing')}</Quiet>;
  const words = answerWords(question, answer, say);
  return words === '' ? <Quiet as="span">{say('nothing')}</Quiet> : words;
}

interface SendProps {
  isTrial: boolean;
  isSending: boolean;
  say: Say;
  onSee: () => void;
  onBack: () => void;
  onSend: (website: string) => Promise<void>;
}
function SendFoot({ isTrial, isSending, say, onSee, onBack, onSend }: SendProps) {
  const trap = useRef<HTMLInputElement>(null);
  return (
    <Foot>
      <Trap aria-hidden>
        <input ref={trap} name="website" tabIndex={-1} autoComplete="off" />
      </Trap>
      {!isTrial && <Button onClick={onSee}>{say('see')}</Button>}
      <Ways>
        <Button onClick={onBack}>{say('back')}</Button>
        <Button data-main disabled={isTrial || isSending} onClick={() => void onSend(trap.current?.value ?? '')}>
          {say(isSending ? 'sending' : 'send')}
        </Button>
      </Ways>
      {isTrial && <Quiet>{say('trial')}</Quiet>}
    </Foot>
  );
}
