import { counted, t } from '@mailbag/core/words';
import { phrase } from '../../../ui/phrase';
import type { Drawn } from '@mailbag/core';
import { nameEnd } from '../../../features/page/field-facts';
import { color, font } from '../../../theme';
import { Small } from '../../../ui/layout';
import { useEffect, useRef } from 'react';
import { ListBox, ListBoxItem, useDragAndDrop } from 'react-aria-components';
import styled from 'styled-components';
import { drawnLabel, toolFacts, toolOf } from './tools';

const Heading = styled.h2`
  margin: 0;
  padding: 5px 12px;
  font: 600 14px/18px ${font.head};
  background: ${color.paper};
  border-bottom: 1px solid ${color.hair};
  & > span {
    font: 400 12px/16px ${font.text};
    margin-left: 4px;
  }
  position: sticky;
  top: 0;
  z-index: 1;
`;
const Item = styled(ListBoxItem)`
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 5px 12px;
  border-bottom: 1px solid ${color.hair};
  cursor: pointer;
  outline: none;
  & > svg {
    flex: none;
    color: ${color.faded};
  }
  & > span {
    min-width: 0;
    flex: 1;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  & code {
    display: block;
    font-size: 11px;
    line-height: 14px;
    color: ${color.faded};
    overflow: hidden;
    text-overflow: ellipsis;
  }
  &[data-selected] {
    background: ${color.plumWash};
  }
  &[data-focus-visible] {
    box-shadow: inset 0 0 0 2px ${color.plum};
  }
`;

/** Fields in tab order, which dragging changes, and stamps below them. */
export function DrawnList({
  drawn,
  chosen,
  onChoose,
  onOrder,
}: {
  drawn: readonly Drawn[];
  chosen: ReadonlySet<string>;
  onChoose: (keys: string[]) => void;
  /** Keys of the fields in their new order. */
  onOrder: (order: string[]) => void;
}) {
  const fields = drawn.filter(({ what }) => what === 'field');
  const stamps = drawn.filter(({ what }) => what === 'stamp');
  const keys = fields.map(({ key }) => key);
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (moving) => [...moving].map((key) => ({ 'text/plain': String(key) })),
    onReorder: ({ keys: moving, target }) => {
      const moved = keys.filter((key) => moving.has(key));
      const rest = keys.filter((key) => !moving.has(key));
      const at = rest.indexOf(String(target.key)) + (target.dropPosition === 'after' ? 1 : 0);
      onOrder([...rest.slice(0, at), ...moved, ...rest.slice(at)]);
    },
  });
  const frame = useRef<HTMLDivElement>(null);
  const [only] = chosen.size === 1 ? [...chosen] : [null];
  useEffect(() => {
    if (only) frame.current?.querySelector(`[data-key="${CSS.escape(only)}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [only]);
  const row = (one: Drawn): React.ReactNode => {
    const { icon: Icon, word } = toolFacts[toolOf(one)];
    const label = drawnLabel(one);
    return (
      <Item key={one.key} id={one.key} textValue={label}>
        <Icon size={15} aria-label={word} />
        <span title={one.what === 'field' ? one.field.name : label}>
          {label}
          {one.what === 'field' && one.field.label !== null && <code>{nameEnd(one.field.name)}</code>}
        </span>
        {one.what === 'field' && one.field.required && <Small>{t`required`}</Small>}
      </Item>
    );
  };
  const shared = {
    selectionMode: 'multiple' as const,
    selectionBehavior: 'replace' as const,
    selectedKeys: chosen,
    onSelectionChange: (picked: 'all' | Set<unknown>): void =>
      onChoose(picked === 'all' ? drawn.map(({ key }) => key) : [...picked].map(String)),
  };
  return (
    <div ref={frame}>
      <Heading>{phrase`Fields ${(<Small>{keys.length > 0 ? t`${keys.length}, in tab order` : t`none drawn yet`}</Small>)}`}</Heading>
      {keys.length > 0 && (
        <ListBox aria-label={t`Fields in tab order`} {...shared} dragAndDropHooks={dragAndDropHooks}>
          {fields.map(row)}
        </ListBox>
      )}
      {stamps.length > 0 && (
        <>
          <Heading>{phrase`Stamps ${(<Small>{counted(stamps.length, 'stamp')}</Small>)}`}</Heading>
          <ListBox aria-label={t`Stamps`} {...shared}>
            {stamps.map(row)}
          </ListBox>
        </>
      )}
    </div>
  );
}

const BlankRow = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 4px 12px;
  border-bottom: 1px solid ${color.hair};
  & > svg {
    flex: none;
    color: ${color.lagoon};
  }
  & > span {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;
export { BlankRow, Heading as ListHeading };
