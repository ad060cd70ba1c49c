import { plural, t, translated } from '@mailbag/core/words';
import type { FindAnswer } from '@mailbag/contract';
import { useQuery } from '@tanstack/react-query';
import { Search } from 'lucide-react';
import { useDeferredValue, useEffect, useRef, useState } from 'react';
import { ComboBox, Input, ListBox, ListBoxItem } from 'react-aria-components';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { queries } from '../../api/queries';
import { color, font, narrow } from '../../theme';
import { placesFor } from './find-places';
import { Floating } from '../../ui/choice';

interface Hit {
  key: string;
  name: string;
  detail: string;
  to: string;
}

const Place = styled(ComboBox<Hit>)`
  flex: 0 1 300px;
  min-width: 120px;
  ${narrow} {
    flex: 1 1 200px;
  }
`;
const Frame = styled.div`
  height: 30px;
  border: 1px solid ${color.line};
  border-radius: 6px;
  background: ${color.sheet};
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 8px;
  color: ${color.faded};
  &:focus-within {
    outline: 2px solid ${color.plum};
    outline-offset: -1px;
  }
  & input {
    border: 0;
    background: none;
    flex: 1;
    min-width: 0;
    color: ${color.ink};
  }
  & input:focus {
    outline: none;
  }
  & kbd {
    font: 12px ${font.mono};
    border: 1px solid ${color.line};
    border-radius: 4px;
    padding: 0 5px;
    background: ${color.paper};
  }
`;
const List = styled(ListBox<Hit>)`
  padding: 4px;
  width: 380px;
  max-width: calc(100vw - 16px);
  outline: none;
`;
const Item = styled(ListBoxItem)`
  padding: 5px 8px;
  border-radius: 4px;
  cursor: pointer;
  & small {
    display: block;
    color: ${color.faded};
    font-size: 12px;
    line-height: 16px;
  }
  &[data-focused] {
    background: ${color.plumWash};
    outline: none;
  }
`;

/** What a hit is, and where it leads. */
function hitWords(hit: FindAnswer['hits'][number], text: string): { detail: string; to: string } {
  switch (hit.kind) {
    case 'mailing':
      return { detail: t`Mailing · ${plural(hit.records, 'record', 'records')}`, to: `/mailings/${hit.id}/map` };
    case 'template':
      return { detail: t`Template · ${plural(hit.fields, 'field', 'fields')}`, to: `/templates/${hit.id}` };
    case 'source':
      return { detail: t`Source · ${plural(hit.records, 'record', 'records')}`, to: `/sources/${hit.id}` };
    case 'copy':
      return {
        detail: `${hit.code} · ${hit.templateName} · ${translated(hit.state)}`,
        to: `/ledger?copy=${hit.id}&text=${encodeURIComponent(text)}`,
      };
  }
}

/** Finds any copy, recipient, code, mailing, template or source, and places and actions by their words. Ctrl+K goes here. */
export function Find({ isAdministrator }: { isAdministrator: boolean }) {
  const [text, setText] = useState('');
  const { data } = useQuery(queries.find(useDeferredValue(text)));
  const navigate = useNavigate();
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        input.current?.focus();
        input.current?.select();
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const isAsked = text.trim().length > 1;
  const hits: Hit[] = isAsked
    ? [
        ...(data?.hits ?? []).map((hit) => ({ key: `${hit.kind} ${hit.id}`, name: hit.name, ...hitWords(hit, text) })),
        ...placesFor(text, isAdministrator).map((place) => ({ key: `${place.to} ${place.name}`, ...place })),
      ]
    : [];
  return (
    <Place
      aria-label={t`Find`}
      inputValue={text}
      onInputChange={setText}
      items={hits}
      allowsCustomValue
      allowsEmptyCollection={isAsked}
      defaultFilter={() => true}
      menuTrigger="input"
      value={null}
      onChange={(key) => {
        const hit = hits.find((one) => one.key === key);
        if (!hit) return;
        setText('');
        input.current?.blur();
        void navigate(hit.to);
      }}
    >
      <Frame>
        <Search size={15} />
        <Input ref={input} placeholder={t`Find a copy, a person, a code`} />
        <kbd>{t`Ctrl K`}</kbd>
      </Frame>
      <Floating placement="bottom end" offset={10}>
        <List
          renderEmptyState={() => <div style={{ padding: 8 }}>{data ? t`Nothing matches that name, code or word.` : t`Looking …`}</div>}
        >
          {(hit) => (
            <Item id={hit.key} textValue={hit.name}>
              {hit.name}
              <small>{hit.detail}</small>
            </Item>
          )}
        </List>
      </Floating>
    </Place>
  );
}
