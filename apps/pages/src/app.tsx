import type { IntakeAnswers } from '@mailbag/core/intake';
import { planIn } from '@mailbag/core/intake';
import { useEffect, useState } from 'react';
import type { PublicPage } from './api';
import { Refused, goOnWith, letIn, loadPage, openPersonal, wordOf } from './api';
import { PersonalAsk } from './personal-link';
import type { PersonalVisit } from './personal-token';
import { personalPlace, personalToken } from './personal-token';
import { windowStorage, lastingStorage } from './browser-storage';
import { PhraseAsk } from './phrase-ask';
import { keepVisit, savedVisit } from './saved-visit';
import { OfficeWords, spokenIn } from './office-text';
import { Page } from './page';
import { Body, Button, Frame, GlobalStyle, Note, Quiet } from './styles';
import type { Language } from './words';
import { directionOf, isLanguage, languageFor, sayIn } from './words';

/** The word under which whoever makes an intake looks at it before it is published. */
const DRAFT = 'draft';
/** What stands behind the # of a link to go on. */
const TOKEN = /^[\w-]{43}$/;
/** Where what was said to be let in is kept as long as this window stands. */
const phrasePlace = (word: string): string => `mailbag-phrase-${word}`;
const LANGUAGE = 'mailbag-page-language';

function firstLanguage(): Language {
  const stored = lastingStorage.getItem(LANGUAGE) ?? '';
  return isLanguage(stored) ? stored : languageFor(navigator.languages);
}

interface Opened {
  page: PublicPage;
  personal: PersonalVisit | null;
  known: IntakeAnswers;
}
/** `asks`: what the recipient of a personal link must say first. */
type Loaded =
  | Opened
  | { asks: string; token: string; page: PublicPage }
  | { phraseIsWrong: boolean }
  | { fault: 'gone' | 'failed' | 'personalGone'; why?: string }
  | null;

/** Whoever has begun finishes in the version in which they began. @param place where what they typed is kept */
async function asBegun(word: string, page: PublicPage, place: string): Promise<PublicPage> {
  const saved = savedVisit(place, lastingStorage);
  if (!saved || saved.isSent || saved.edition === page.edition) return page;
  return loadPage(word, saved.edition).catch(() => {
    keepVisit(place, null, lastingStorage);
    return page;
  });
}

/** What is shown of the intake whose word stands in the address. */
export function App() {
  const word = wordOf(location.pathname);
  const isTrial = word === DRAFT;
  const [language, setLanguage] = useState(firstLanguage);
  const [loaded, setLoaded] = useState<Loaded>(null);
  const [tries, setTries] = useState(0);
  const [isLinkGone, setLinkGone] = useState(false);
  const [fills, setFills] = useState(0);
  const [pointed, setPointed] = useState<string | null>(null);
  const say = sayIn(language);

  useEffect(() => {
    if (isTrial) {
      const take = ({
        origin,
        data,
      }: MessageEvent<{
        mailbagDraft?: PublicPage;
        mailbagQuestion?: string | null;
        mailbagLanguage?: string | null;
        mailbagAnswers?: IntakeAnswers;
      }>): void => {
        if (origin !== location.origin || !data.mailbagDraft) return;
        const { mailbagDraft: page, mailbagAnswers: given } = data;
        // Made-up answers come once; what is changed on the page afterwards stays.
        setLoaded((before) => ({ page, personal: null, known: given ?? (before && 'known' in before ? before.known : {}) }));
        if (given) setFills((count) => count + 1);
        setPointed(given ? null : (data.mailbagQuestion ?? null));
        if (isLanguage(data.mailbagLanguage ?? '')) setLanguage(data.mailbagLanguage as Language);
      };
      window.addEventListener('message', take);
      window.parent.postMessage({ mailbagPage: 'ready' }, location.origin);
      return () => window.removeEventListener('message', take);
    }
    const token = location.hash.slice(1);
    const own = personalToken(location.hash);
    letIn({ phrase: windowStorage.getItem(phrasePlace(word)) ?? '', link: own ?? '' });
    const beginOwn = async (link: string): Promise<Loaded> => {
      const page = await loadPage(word);
      try {
        const { asks, answers } = await openPersonal(word, link);
        if (asks !== null) return { asks, token: link, page };
        return { page: await asBegun(word, page, personalPlace(word, link)), personal: { token: link }, known: answers };
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        return error.status === 404 ? { fault: 'personalGone' } : { fault: 'failed', why: error.message };
      }
    };
    const begin = async (): Promise<Loaded> => ({ page: await beginPage(), personal: null, known: {} });
    const beginPage = async (): Promise<PublicPage> => {
      const page = await loadPage(word);
      if (!TOKEN.test(token)) return asBegun(word, page, word);
      // It stands in the address of this window no longer than it is needed.
      history.replaceState(null, '', location.pathname);
      await goOnWith(word, token).then(
        (visit) => keepVisit(word, { ...visit, isSent: false }, lastingStorage),
        () => setLinkGone(true),
      );
      return asBegun(word, page, word);
    };
    (own === null ? begin() : beginOwn(own)).then(setLoaded, (error: unknown) => {
      if (!(error instanceof Refused)) return setLoaded({ fault: 'failed' });
      if (error.code === 'intake-phrase') return setLoaded({ phraseIsWrong: windowStorage.getItem(phrasePlace(word)) !== null });
      setLoaded(error.status === 404 ? { fault: 'gone' } : { fault: 'failed', why: error.message });
    });
    return undefined;
  }, [word, isTrial, tries]);

  // Within another site, the frame can grow with what is shown in it.
  useEffect(() => {
    if (window.parent === window) return undefined;
    const watch = new ResizeObserver(() => window.parent.postMessage({ mailbagHeight: document.documentElement.scrollHeight }, '*'));
    watch.observe(document.body);
    return () => watch.disconnect();
  }, []);

  const plan = loaded && 'page' in loaded ? planIn(loaded.page.plan, language) : null;
  const title = plan ? plan.title.trim() || plan.name : '';
  useEffect(() => {
    document.documentElement.lang = language;
    document.documentElement.dir = directionOf(language);
    if (title) document.title = title;
  }, [language, title]);

  const choose = (next: Language): void => {
    setLanguage(next);
    lastingStorage.setItem(LANGUAGE, next);
  };
  return (
    <Frame data-frame>
      <GlobalStyle />
      {loaded === null ? (
        <Body>
          <Quiet role="status">{say('loading')}</Quiet>
        </Body>
      ) : 'fault' in loaded ? (
        <Body>
          <h1>{say(loaded.fault)}</h1>
          {loaded.why && <p>{loaded.why}</p>}
          {loaded.fault === 'personalGone' ? null : loaded.fault === 'gone' ? (
            <p>{say('goneNext')}</p>
          ) : (
            <Button
              onClick={() => {
                setLoaded(null);
                setTries(tries + 1);
              }}
            >
              {say('again')}
            </Button>
          )}
        </Body>
      ) : 'phraseIsWrong' in loaded ? (
        <PhraseAsk
          isWrong={loaded.phraseIsWrong}
          say={say}
          onSay={(phrase) => {
            windowStorage.setItem(phrasePlace(word), phrase);
            setLoaded(null);
            setTries(tries + 1);
          }}
        />
      ) : 'asks' in loaded ? (
        <PersonalAsk
          word={word}
          token={loaded.token}
          asks={loaded.asks}
          say={say}
          onOpen={async ({ answers }, check) => {
            const page = await asBegun(word, loaded.page, personalPlace(word, loaded.token));
            setLoaded({ page, personal: { token: loaded.token, check }, known: answers });
          }}
        />
      ) : (
        <>
          {isLinkGone && <Note role="alert">{say('linkGone')}</Note>}
          <OfficeWords value={spokenIn(loaded.page.plan, language)}>
            <Page
              key={fills}
              word={word}
              page={{ ...loaded.page, plan: planIn(loaded.page.plan, language) }}
              place={loaded.personal ? personalPlace(word, loaded.personal.token) : word}
              personal={loaded.personal}
              known={loaded.known}
              isTrial={isTrial}
              pointed={pointed}
              language={language}
              onLanguage={choose}
              say={say}
            />
          </OfficeWords>
        </>
      )}
    </Frame>
  );
}
