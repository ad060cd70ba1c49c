import { t } from '@mailbag/core/words';
import { MousePointer2, Stamp } from 'lucide-react';
import type { PressEvent } from 'react-aria-components';
import { Menu, MenuItem, MenuTrigger, Toolbar } from 'react-aria-components';
import styled from 'styled-components';
import { UndoButtons } from '../../../features/editing/undo-buttons';
import { Zoom } from '../../../features/page/zoom';
import { color } from '../../../theme';
import { Button } from '../../../ui/button';
import { Floating } from '../../../ui/choice';
import type { DrawTool, Tool } from './tools';
import { fieldTools, isStampTool, stampTools, toolFacts } from './tools';

const Strip = styled(Toolbar)`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  padding: 6px 12px;
  border-top: 1px solid ${color.line};
  & > .fill {
    flex: 1;
  }
`;
const Items = styled(Menu)`
  padding: 4px;
  outline: none;
`;
const Item = styled(MenuItem)`
  padding: 5px 8px;
  border-radius: 4px;
  cursor: pointer;
  outline: none;
  &[data-focused] {
    background: ${color.plumWash};
  }
`;

export interface LayoutToolbarProps {
  tool: Tool;
  onTool: (tool: Tool) => void;
  /** A tool that was chosen by key: what it draws is put in the middle of the page at once. */
  onPlace: (tool: DrawTool) => void;
  zoom: number;
  onZoom: (zoom: number) => void;
  undo: (() => void) | null;
  redo: (() => void) | null;
}

export function LayoutToolbar({ tool, onTool, onPlace, zoom, onZoom, undo, redo }: LayoutToolbarProps) {
  const choose = (next: DrawTool, { pointerType }: Pick<PressEvent, 'pointerType'>): void => {
    if (pointerType === 'keyboard' || pointerType === 'virtual') onPlace(next);
    else onTool(tool === next ? 'select' : next);
  };
  return (
    <Strip aria-label={t`Drawing tools`}>
      <Button small pressed={tool === 'select'} tip={t`Choose, move and resize (Esc)`} onPress={() => onTool('select')}>
        <MousePointer2 size={14} />
        {t`Select`}
      </Button>
      {fieldTools.map((one) => {
        const { icon: Icon, word } = toolFacts[one];
        return (
          <Button
            key={one}
            small
            changes
            pressed={tool === one}
            tip={t`Drag on the page. With Shift the tool stays for the next one`}
            onPress={(event) => choose(one, event)}
          >
            <Icon size={14} />
            {word}
          </Button>
        );
      })}
      <MenuTrigger>
        <Button small changes pressed={isStampTool(tool)}>
          <Stamp size={14} />
          {isStampTool(tool) ? toolFacts[tool].word : t`Stamp`}
        </Button>
        <Floating>
          <Items aria-label={t`Stamps`} onAction={(key) => onTool(stampTools.find((one) => one === key)!)}>
            {stampTools.map((one) => (
              <Item key={one} id={one}>
                {toolFacts[one].word}
              </Item>
            ))}
          </Items>
        </Floating>
      </MenuTrigger>
      <div className="fill" />
      <UndoButtons undo={undo} redo={redo} />
      <Zoom zoom={zoom} onZoom={onZoom} maximum={8} />
    </Strip>
  );
}
