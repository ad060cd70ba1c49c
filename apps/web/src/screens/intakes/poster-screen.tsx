import { t } from '@mailbag/core/words';
import type { IntakePlan, PageLanguage } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { Printer } from 'lucide-react';
import { useParams } from 'react-router';
import styled from 'styled-components';
import { sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Empty, Row } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { useSymbol } from './use-symbol';

const Desk = styled.main`
  min-height: 100vh;
  background: ${color.ground};
  padding: 16px;
  display: grid;
  justify-items: center;
  gap: 12px;
  align-content: start;
  @media print {
    background: none;
    padding: 0;
    & > nav {
      display: none;
    }
  }
`;
/** A sheet of A4. */
const Sheet = styled.article`
  width: 210mm;
  min-height: 296mm;
  max-width: 100%;
  background: #fff;
  color: #000;
  padding: 24mm 22mm;
  display: grid;
  justify-items: center;
  align-content: start;
  gap: 10mm;
  text-align: center;
  @media screen {
    border: 1px solid ${color.line};
  }
  & h1 {
    font-size: 34pt;
    line-height: 40pt;
    overflow-wrap: anywhere;
  }
  & p {
    font-size: 15pt;
    line-height: 21pt;
    white-space: pre-line;
    overflow-wrap: anywhere;
  }
  & img {
    width: 90mm;
    height: 90mm;
  }
  & code {
    font-size: 18pt;
    overflow-wrap: anywhere;
  }
`;

/** When the page takes answers, as a range of days that needs no words. Empty: always. */
function openDays({ from, until, zone }: IntakePlan['opening'], language: PageLanguage): string {
  const days = new Intl.DateTimeFormat(language, { dateStyle: 'long', ...(zone && { timeZone: zone }) });
  if (from !== null && until !== null) return days.formatRange(new Date(from), new Date(until));
  return from !== null ? `${days.format(new Date(from))} –` : until !== null ? `– ${days.format(new Date(until))}` : '';
}

/** A sheet to hang up: what the page is about, its address as words and as a symbol, and until when it takes answers. */
export default function PosterScreen() {
  const id = Number(useParams().id);
  const { data: intake, error } = useQuery(queries.intake(id));
  const { address, svg } = useSymbol(intake?.word ?? '');
  if (error && !intake) return <Empty title={t`This intake cannot be shown`}>{sentenceOf(error)}</Empty>;
  if (!intake) return <Loading what={t`the poster`} />;
  const { title, name, intro, opening, language = 'en' } = intake.plan;
  const days = openDays(opening, language);
  return (
    <Desk>
      <Row as="nav" aria-label={t`Poster`}>
        <Button look="go" onPress={() => window.print()}>
          <Printer size={14} />
          {t`Print`}
        </Button>
      </Row>
      <Sheet lang={language} aria-label={t`Poster`}>
        <h1>{title.trim() || name}</h1>
        {intro.trim() !== '' && <p>{intro}</p>}
        {svg && <img src={svg} alt={t`QR code of ${address}`} />}
        <code>{address.replace(/^https?:\/\//, '')}</code>
        {days !== '' && <p>{days}</p>}
        {opening.contact.trim() !== '' && <p>{opening.contact}</p>}
      </Sheet>
    </Desk>
  );
}
