import { t } from '@mailbag/core/words';
import { Mention } from '@tiptap/extension-mention';
import { EditorContent, useEditor, useEditorState } from '@tiptap/react';
import type { Editor } from '@tiptap/react';
import { StarterKit } from '@tiptap/starter-kit';
import { Bold, Heading2, Italic, Link2, Link2Off, List, ListOrdered, Quote, Redo2, Underline, Undo2 } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { ComponentType } from 'react';
import { Toolbar } from 'react-aria-components';
import styled from 'styled-components';
import { color, font } from '../../theme';
import { Button, IconButton } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { FieldLabel, Help, Wrong } from '../../ui/field';
import { TextInput } from '../../ui/field';
import { Row } from '../../ui/layout';
import type { Offer } from '../../ui/offers';
import { Offers } from '../../ui/offers';
import { fromEditor, toEditor } from './rich-text';

const Frame = styled.div`
  position: relative;
  display: flex;
  flex-direction: column;
  gap: 4px;
`;
const Box = styled.div`
  border: 1px solid ${color.line};
  border-radius: 6px;
  background: ${color.sheet};
  &:focus-within {
    outline: 2px solid ${color.plum};
    outline-offset: -1px;
  }
  & .ProseMirror {
    min-height: 190px;
    max-height: 420px;
    overflow: auto;
    padding: 8px 12px;
    outline: none;
  }
  & .ProseMirror p {
    margin: 0 0 8px;
  }
  & .ProseMirror h2 {
    font: 600 18px ${font.head};
    margin: 4px 0 8px;
  }
  & .ProseMirror blockquote {
    margin: 0 0 8px;
    padding-left: 10px;
    border-left: 3px solid ${color.line};
  }
  & .ProseMirror a {
    color: ${color.plum};
  }
  & .chip {
    background: ${color.kraft};
    border-radius: 4px;
    padding: 0 6px;
    white-space: nowrap;
  }
  & .chip[data-lost] {
    background: ${color.brickWash};
    color: ${color.brick};
  }
`;
/** One tab stop; its tools are reached with the arrow keys (WAI-ARIA Authoring Practices, “Toolbar pattern”). */
const Tools = styled(Toolbar)`
  display: flex;
  align-items: center;
  padding: 3px 6px;
  gap: 2px;
  border-bottom: 1px solid ${color.hair};
  flex-wrap: wrap;
  & > .gap {
    width: 8px;
  }
  & > .fill {
    flex: 1;
  }
`;
const LinkRow = styled(Row)`
  padding: 4px 6px;
  border-bottom: 1px solid ${color.hair};
`;
interface Offering {
  items: Offer[];
  at: { left: number; top: number };
  choose: (item: Offer) => void;
}

function Tool({
  label,
  icon: Icon,
  isOn,
  onPress,
}: {
  label: string;
  icon: ComponentType<{ size?: number }>;
  isOn?: boolean;
  onPress: () => void;
}) {
  return (
    <IconButton label={label} pressed={isOn ?? false} onPress={onPress}>
      <Icon size={15} />
    </IconButton>
  );
}

/** Begins and takes off a link. */
function LinkTools({ editor, onBegin }: { editor: Editor; onBegin: (address: string) => void }) {
  const isOn = useEditorState({ editor, selector: ({ editor: one }) => one.isActive('link') });
  return (
    <>
      <Tool
        label={t`Link`}
        icon={Link2}
        isOn={isOn}
        onPress={() => onBegin((editor.getAttributes('link').href as string | undefined) ?? 'https://')}
      />
      {isOn && (
        <Tool label={t`Remove the link`} icon={Link2Off} onPress={() => editor.chain().focus().extendMarkRange('link').unsetLink().run()} />
      )}
    </>
  );
}

/** Where a link leads, below the tools: the arrow keys are those of the text here. */
function LinkLine({ editor, address, onAddress }: { editor: Editor; address: string; onAddress: (address: string | null) => void }) {
  const set = (): void => {
    editor.chain().focus().extendMarkRange('link').setLink({ href: address }).run();
    onAddress(null);
  };
  const leave = (): void => {
    onAddress(null);
    editor.commands.focus();
  };
  return (
    <LinkRow
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          event.preventDefault();
          set();
        } else if (event.key === 'Escape') {
          event.preventDefault();
          leave();
        }
      }}
    >
      <div style={{ flex: 1, maxWidth: 320 }}>
        <TextInput label={t`Address of the link`} hideLabel value={address} onChange={onAddress} autoFocus />
      </div>
      <Button small look="go" onPress={set}>{t`Set the link`}</Button>
      <Button small look="bare" onPress={leave}>{t`Cancel`}</Button>
    </LinkRow>
  );
}

/** A rich text in which columns are chips. Typing two braces offers them. */
export default function RichEditor({
  label,
  value,
  onChange,
  insertables,
  error,
  help,
}: {
  label: string;
  /** HTML with columns as `{{ plot }}`. */
  value: string;
  onChange: (value: string) => void;
  insertables: readonly Offer[];
  error?: string | null;
  help?: string;
}) {
  const [offering, setOffering] = useState<Offering | null>(null);
  const [chosen, setChosen] = useState(0);
  const latest = useRef({ insertables, offering, chosen, onChange });
  latest.current = { insertables, offering, chosen, onChange };
  const given = useRef(value);
  const extensions = useMemo(
    () => [
      StarterKit.configure({
        heading: { levels: [2, 3] },
        codeBlock: false,
        code: false,
        link: { openOnClick: false, protocols: ['http', 'https', 'mailto'] },
      }),
      Mention.configure({
        renderHTML: ({ node }) => {
          const id = String(node.attrs.id);
          const known = latest.current.insertables.find(({ slug }) => slug === id);
          return [
            'span',
            { class: 'chip', 'data-type': 'mention', 'data-id': id, ...(known ? {} : { 'data-lost': '' }) },
            known?.text ?? id,
          ];
        },
        renderText: ({ node }) => `{{ ${String(node.attrs.id)} }}`,
        suggestion: {
          char: '{{',
          allowedPrefixes: null,
          items: ({ query }) =>
            latest.current.insertables
              .filter(({ slug, text }) => `${slug} ${text}`.toLowerCase().includes(query.trim().toLowerCase()))
              .slice(0, 12),
          command: ({ editor, range, props }) =>
            void editor
              .chain()
              .focus()
              .insertContentAt(range, [{ type: 'mention', attrs: { id: props.id } }])
              .run(),
          render: () => {
            const show = ({
              items,
              clientRect,
              command,
            }: {
              items: Offer[];
              clientRect?: (() => DOMRect | null) | null;
              command: (item: { id: string }) => void;
            }): void => {
              const box = clientRect?.();
              setChosen(0);
              setOffering(box ? { items, at: { left: box.left, top: box.bottom + 4 }, choose: ({ slug }) => command({ id: slug }) } : null);
            };
            return {
              onStart: show,
              onUpdate: show,
              onExit: () => setOffering(null),
              onKeyDown: ({ event }) => {
                const { offering: open, chosen: at } = latest.current;
                if (!open || open.items.length === 0) return false;
                if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
                  setChosen((at + (event.key === 'ArrowDown' ? 1 : open.items.length - 1)) % open.items.length);
                  return true;
                }
                if (event.key === 'Enter' || event.key === 'Tab') {
                  open.choose(open.items[at]!);
                  return true;
                }
                if (event.key === 'Escape') {
                  setOffering(null);
                  return true;
                }
                return false;
              },
            };
          },
        },
      }),
    ],
    [],
  );
  const editor = useEditor({
    extensions,
    content: toEditor(value),
    editorProps: { attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': label } },
    onUpdate: ({ editor: one }) => {
      given.current = fromEditor(one.getHTML());
      latest.current.onChange(given.current);
    },
  });
  // A value that comes from elsewhere, such as undo of the whole plan, is taken over.
  useEffect(() => {
    if (editor && value !== given.current) {
      given.current = value;
      editor.commands.setContent(toEditor(value), { emitUpdate: false });
    }
  }, [editor, value]);
  const on = useEditorState({
    editor,
    selector: ({ editor: one }) => ({
      bold: one?.isActive('bold') ?? false,
      italic: one?.isActive('italic') ?? false,
      underline: one?.isActive('underline') ?? false,
      heading: one?.isActive('heading', { level: 2 }) ?? false,
      bullets: one?.isActive('bulletList') ?? false,
      numbers: one?.isActive('orderedList') ?? false,
      quote: one?.isActive('blockquote') ?? false,
    }),
  });
  const [link, setLink] = useState<string | null>(null);
  if (!editor) return null;
  const run = () => editor.chain().focus();
  return (
    <Frame>
      <FieldLabel>{label}</FieldLabel>
      <Box>
        <Tools aria-label={t`Tools for ${label.toLowerCase()}`}>
          <Tool label={t`Bold (Ctrl+B)`} icon={Bold} isOn={on.bold} onPress={() => run().toggleBold().run()} />
          <Tool label={t`Italic (Ctrl+I)`} icon={Italic} isOn={on.italic} onPress={() => run().toggleItalic().run()} />
          <Tool label={t`Underline (Ctrl+U)`} icon={Underline} isOn={on.underline} onPress={() => run().toggleUnderline().run()} />
          <Tool label={t`Heading`} icon={Heading2} isOn={on.heading} onPress={() => run().toggleHeading({ level: 2 }).run()} />
          <Tool label={t`List`} icon={List} isOn={on.bullets} onPress={() => run().toggleBulletList().run()} />
          <Tool label={t`Numbered list`} icon={ListOrdered} isOn={on.numbers} onPress={() => run().toggleOrderedList().run()} />
          <Tool label={t`Quote`} icon={Quote} isOn={on.quote} onPress={() => run().toggleBlockquote().run()} />
          <LinkTools editor={editor} onBegin={setLink} />
          <div className="gap" />
          <Tool label={t`Undo (Ctrl+Z)`} icon={Undo2} onPress={() => run().undo().run()} />
          <Tool label={t`Redo (Ctrl+Y)`} icon={Redo2} onPress={() => run().redo().run()} />
          <div className="fill" />
          <Choice
            label={t`Put a column into the text`}
            hideLabel
            small
            items={insertables.map(({ slug, text }) => ({ id: slug, text }))}
            value={null}
            placeholder={t`Insert a column`}
            onChange={(slug) =>
              void run()
                .insertContent([{ type: 'mention', attrs: { id: slug } }])
                .run()
            }
          />
        </Tools>
        {link !== null && <LinkLine editor={editor} address={link} onAddress={setLink} />}
        <EditorContent editor={editor} />
      </Box>
      {help && !error && <Help>{help}</Help>}
      {error && <Wrong>{error}</Wrong>}
      {offering && offering.items.length > 0 && (
        <Offers items={offering.items} chosen={chosen} onChoose={offering.choose} style={{ position: 'fixed', ...offering.at }} />
      )}
    </Frame>
  );
}
