import { t } from '@mailbag/core/words';
import type { IntakeDetail } from '@mailbag/contract';
import { useState } from 'react';
import { TextInput } from '../../ui/field';
import { Row, Small, Stack } from '../../ui/layout';
import { FileButton } from '../../ui/link-button';
import { useSymbol } from './use-symbol';

/** What another site puts into its own page: a frame that grows with what is shown in it. */
const snippetFor = (address: string, title: string): string =>
  `<iframe src="${address}" title="${title.replaceAll('&', '&amp;').replaceAll('"', '&quot;')}" style="width:100%;height:800px;border:0"></iframe>
<script>addEventListener("message",function(e){var f=document.querySelector('iframe[src="${address}"]');if(f&&e.source===f.contentWindow&&e.data&&e.data.mailbagHeight)f.style.height=e.data.mailbagHeight+"px"})</script>`;

/** The address as a symbol for posters and letters, and the lines for another site. */
export function Share({ intake }: { intake: IntakeDetail }) {
  const { address, svg, png } = useSymbol(intake.word);
  return (
    <Row $gap={12} style={{ alignItems: 'start' }}>
      {svg && <img src={svg} alt={t`QR code of ${address}`} width={104} height={104} />}
      <Stack $gap={6}>
        <Small>{t`For posters and letters: whoever points a phone at it opens the page.`}</Small>
        {svg && (
          <Row>
            <FileButton $small href={svg} download={`${intake.word}.svg`}>{t`QR as SVG`}</FileButton>
            <FileButton $small href={png} download={`${intake.word}.png`}>{t`QR as PNG`}</FileButton>
            <FileButton $small href={`/intakes/${intake.id}/poster`} target="_blank" rel="noreferrer">{t`Poster to print`}</FileButton>
          </Row>
        )}
        <TextInput
          label={t`For another site`}
          mono
          isReadOnly
          rows={2}
          value={snippetFor(address, intake.plan.title || intake.plan.name)}
          onChange={() => undefined}
        />
      </Stack>
    </Row>
  );
}

const SITE = /^https?:\/\/[a-z0-9.-]{1,200}(?::\d{1,5})?$/;

/** The sites that may show the page within theirs; all others are refused by the visitor's browser. */
export function Sites({ sites, onChange }: { sites: readonly string[]; onChange: (sites: string[]) => void }) {
  const [text, setText] = useState(sites.join(' '));
  const told = text.toLowerCase().split(/[\s,]/).filter(Boolean);
  const wrong = told.find((site) => !SITE.test(site));
  return (
    <TextInput
      label={t`Sites that may show the page within theirs`}
      value={text}
      placeholder={t`none; such as https://www.larkmere.example`}
      error={wrong ? t`“${wrong}” is not a site. Write its address without a path, such as https://www.larkmere.example.` : null}
      onChange={(next) => {
        setText(next);
        const all = next.toLowerCase().split(/[\s,]/).filter(Boolean);
        if (all.every((site) => SITE.test(site))) onChange(all);
      }}
    />
  );
}
