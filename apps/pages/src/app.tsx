import { useEffect, useState } from 'react';
import type { PublicPage } from './api';
import { Refused, goOnWith, loadPage, wordOf } from './api';
import { keepVisit, keptVisit } from './kept-visit';
import { Page } from './page';
import { Body, Button, Frame, GlobalStyle, Note, Quiet } from './styles';
import type { Language } from './words';
import { directionOf, isLanguage, languageFor, sayIn } from './words';

/** The word under which whoever makes an intake looks at it before it is published. */
const DRAFT = 'draft';
/** What stands behind the # of a link to go on. */
const TOKEN = /^[\w-]{43}$/;
const LANGUAGE = 'mailbag-page-language';

function firstLanguage(): Language {
  const kept = localStorage.getItem(LANGUAGE) ?? '';
  return isLanguage(kept) ? kept : languageFor(navigator.languages);
}

type Loaded = { page: PublicPage } | { fault: 'gone' | 'failed' } | null;

/** What is shown of the intake whose word stands in the address. */
export function App() {
  const word = wordOf(location.pathname);
  const isTrial = word === DRAFT;
  const [language, setLanguage] = useState(firstLanguage);
  const [loaded, setLoaded] = useState<Loaded>(null);
  const [tries, setTries] = useState(0);
  const [isLinkGone, setLinkGone] = useState(false);
  const [pointed, setPointed] = useState<string | null>(null);
  const say = sayIn(language);

  useEffect(() => {
    if (isTrial) {
      const take = ({ origin, data }: MessageEvent<{ mailbagDraft?: PublicPage; mailbagQuestion?: string | null }>): void => {
        if (origin !== location.origin || !data.mailbagDraft) return;
        setLoaded({ page: data.mailbagDraft });
        setPointed(data.mailbagQuestion ?? null);
      };
      window.addEventListener('message', take);
      window.parent.postMessage({ mailbagPage: 'ready' }, location.origin);
      return () => window.removeEventListener('message', take);
    }
    const token = location.hash.slice(1);
    /** Whoever has begun finishes in the version in which they began. */
    const asBegun = async (page: PublicPage): Promise<PublicPage> => {
      const kept = keptVisit(word, localStorage);
      if (!kept || kept.isSent || kept.edition === page.edition) return page;
      return loadPage(word, kept.edition).catch(() => {
        keepVisit(word, null, localStorage);
        return page;
      });
    };
    const begin = async (): Promise<PublicPage> => {
      const page = await loadPage(word);
      if (!TOKEN.test(token)) return asBegun(page);
      // It stands in the address of this window no longer than it is needed.
      history.replaceState(null, '', location.pathname);
      await goOnWith(word, token).then(
        (kept) => keepVisit(word, { ...kept, isSent: false }, localStorage),
        () => setLinkGone(true),
      );
      return asBegun(page);
    };
    begin().then(
      (page) => setLoaded({ page }),
      (error: unknown) => setLoaded({ fault: error instanceof Refused && error.status === 404 ? 'gone' : 'failed' }),
    );
    return undefined;
  }, [word, isTrial, tries]);

  // Within another site, the frame can grow with what is shown in it.
  useEffect(() => {
    if (window.parent === window) return undefined;
    const watch = new ResizeObserver(() => window.parent.postMessage({ mailbagHeight: document.documentElement.scrollHeight }, '*'));
    watch.observe(document.body);
    return () => watch.disconnect();
  }, []);

  const title = loaded && 'page' in loaded ? loaded.page.plan.title.trim() || loaded.page.plan.name : '';
  useEffect(() => {
    document.documentElement.lang = language;
    document.documentElement.dir = directionOf(language);
    if (title) document.title = title;
  }, [language, title]);

  const choose = (next: Language): void => {
    setLanguage(next);
    try {
      localStorage.setItem(LANGUAGE, next);
    } catch {
      // Switched off; the choice holds as long as the page stands.
    }
  };
  return (
    <Frame>
      <GlobalStyle />
      {loaded === null ? (
        <Body>
          <Quiet role="status">{say('loading')}</Quiet>
        </Body>
      ) : 'fault' in loaded ? (
        <Body>
          <h1>{say(loaded.fault)}</h1>
          {loaded.fault === 'gone' ? (
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
      ) : (
        <>
          {isLinkGone && <Note role="alert">{say('linkGone')}</Note>}
          <Page word={word} page={loaded.page} isTrial={isTrial} pointed={pointed} language={language} onLanguage={choose} say={say} />
        </>
      )}
    </Frame>
  );
}
