/** The editor of a form's text. It may contain what `writtenFrom` of the core accepts. */
import {
  mdiFormatAlignCenter,
  mdiFormatBold,
  mdiFormatItalic,
  mdiFormatListBulleted,
  mdiFormatListNumbered,
  mdiFormatUnderline,
} from '@mdi/js';
import { Table, TableCell, TableHeader, TableRow } from '@tiptap/extension-table';
import { EditorContent, useEditor, useEditorState, type Editor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { type ComponentType, useEffect, useState } from 'react';
import type { Written } from '@gatepath/core/writing';
import { usePalette } from '../../ui/hooks';
import type { ItemMenuProps } from '../../ui/menu';
import { Button, IconButton } from '../../ui/pieces';
import { useAbout, eachWords } from './about';
import { PARTS } from './nodes';
import { PlacePanel } from './place-panel';
import { TagPanel } from './tag-panel';
import { TEXT } from './words';
import { Actions, Row, Stack } from '../../ui/layout';

interface Props {
  text: Written;
  /** Counts texts that came from elsewhere: with another number the text is replaced. */
  from: number;
  onChange: (doc: Written['doc']) => void;
  /** Given by the office: a library imported both there and here would be fetched by those who only sign. */
  menu: Menu;
}

type Menu = ComponentType<ItemMenuProps>;

const EXTENSIONS = [
  StarterKit.configure({
    heading: { levels: [1, 2, 3] },
    blockquote: false,
    code: false,
    codeBlock: false,
    horizontalRule: false,
    link: false,
  }),
  Table.configure({ resizable: false }),
  TableRow,
  TableHeader,
  TableCell,
  ...PARTS,
];

export function FormEditor({ text, from, onChange, menu }: Props) {
  const p = usePalette();
  const editor = useEditor({
    extensions: EXTENSIONS,
    content: text.doc,
    editorProps: {
      attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': TEXT.textOfTheForm, class: 'form-text' },
    },
    onUpdate: ({ editor: e }) => onChange(e.getJSON() as Written['doc']),
  });
  useEffect(() => {
    if (from > 0) editor.commands.setContent(text.doc, { emitUpdate: false });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the text at hand is newer than any but one from elsewhere
  }, [editor, from]);
  return (
    <Stack gap={8}>
      <style>{styles(p.rule)}</style>
      <Tools editor={editor} menu={menu} />
      <EditorContent editor={editor} data-testid="form-text" />
    </Stack>
  );
}

const styles = (rule: string) => `
.form-text { min-height: 420px; background: #fff; color: #1E2A32; border: 1px solid ${rule}; border-radius: 10px;
  padding: 28px clamp(14px, 5%, 48px); font-family: NotoSans_400Regular, Verdana, sans-serif; font-size: 16px; line-height: 1.5;
  overflow-wrap: anywhere; outline-offset: 2px; }
.form-text h1 { font-size: 25px; line-height: 1.25; margin: 0 0 10px; }
.form-text h2 { font-size: 20px; margin: 18px 0 8px; }
.form-text h3 { font-size: 17px; margin: 14px 0 6px; }
.form-text p { margin: 0 0 10px; min-height: 1.5em; }
.form-text table { border-collapse: collapse; width: 100%; margin: 10px 0; table-layout: fixed; }
.form-text td, .form-text th { border: 1px solid #5B6770; padding: 6px 8px; vertical-align: top; text-align: left; }
.form-text td p, .form-text th p { margin: 0; }
.form-text .selectedCell { background: #F4DDD6; }
.form-text li p { margin: 0 0 4px; }
`;

type Panel = 'tag' | 'place' | null;

interface ToolProps {
  editor: Editor;
  menu: Menu;
}

function Tools({ editor, menu }: ToolProps) {
  const [panel, setPanel] = useState<Panel>(null);
  const inTable = useEditorState({ editor, selector: ({ editor: e }) => e.isActive('table') });
  const on = () => editor.chain().focus();
  return (
    <Stack gap={8}>
      <StyleTools editor={editor} menu={menu} />
      <Row gap={8} align="stretch" wrap>
        <Button icon="plus" onPress={() => setPanel(panel === 'tag' ? null : 'tag')} testID="open-tags">
          {TEXT.tag}
        </Button>
        <Button icon="plus" onPress={() => setPanel(panel === 'place' ? null : 'place')} testID="open-places">
          {TEXT.place}
        </Button>
        <PartMenu editor={editor} menu={menu} />
      </Row>
      {inTable ? <TableTools editor={editor} /> : null}
      {panel === 'tag' ? (
        <TagPanel
          onPick={(key) => {
            on().insertContent({ type: 'tag', attrs: { key } }).run();
            setPanel(null);
          }}
          onClose={() => setPanel(null)}
        />
      ) : null}
      {panel === 'place' ? (
        <PlacePanel
          onPick={(attrs) => {
            on().insertContent({ type: 'place', attrs }).run();
            setPanel(null);
          }}
          onClose={() => setPanel(null)}
        />
      ) : null}
    </Stack>
  );
}

/** The style at the cursor. */
function StyleTools({ editor, menu }: ToolProps) {
  const at = useEditorState({
    editor,
    selector: ({ editor: e }) => ({
      bold: e.isActive('bold'),
      italic: e.isActive('italic'),
      underline: e.isActive('underline'),
      bullets: e.isActive('bulletList'),
      numbers: e.isActive('orderedList'),
      center: e.isActive('paragraph', { align: 'center' }),
      undo: e.can().undo(),
      redo: e.can().redo(),
    }),
  });
  const on = () => editor.chain().focus();
  const middle = () =>
    on()
      .updateAttributes('paragraph', { align: at.center ? null : 'center' })
      .run();
  return (
    <Row role="toolbar" aria-label={TEXT.style} gap={4} wrap>
      <LevelMenu editor={editor} menu={menu} />
      <IconButton
        name={{ path: mdiFormatBold }}
        label={TEXT.bold}
        on={at.bold}
        onPress={() => on().toggleBold().run()}
      />
      <IconButton
        name={{ path: mdiFormatItalic }}
        label={TEXT.italic}
        on={at.italic}
        onPress={() => on().toggleItalic().run()}
      />
      <IconButton
        name={{ path: mdiFormatUnderline }}
        label={TEXT.underline}
        on={at.underline}
        onPress={() => on().toggleUnderline().run()}
      />
      <IconButton
        name={{ path: mdiFormatListBulleted }}
        label={TEXT.list}
        on={at.bullets}
        onPress={() => on().toggleBulletList().run()}
      />
      <IconButton
        name={{ path: mdiFormatListNumbered }}
        label={TEXT.numberedList}
        on={at.numbers}
        onPress={() => on().toggleOrderedList().run()}
      />
      <IconButton name={{ path: mdiFormatAlignCenter }} label={TEXT.center} on={at.center} onPress={middle} />
      <IconButton name="undo" label={TEXT.takeBack} disabled={!at.undo} onPress={() => on().undo().run()} />
      <IconButton name="redo" label={TEXT.redo} disabled={!at.redo} onPress={() => on().redo().run()} />
    </Row>
  );
}

const LEVELS = [1, 2, 3] as const;

function LevelMenu({ editor, menu: Menu }: ToolProps) {
  const level = useEditorState({
    editor,
    selector: ({ editor: e }) => LEVELS.find((l) => e.isActive('heading', { level: l })) ?? 0,
  });
  const on = () => editor.chain().focus();
  return (
    <Menu
      // After choosing, typing continues.
      returnTo={() => editor.commands.focus()}
      anchor={(open) => (
        <Button onPress={open} testID="text-level">
          {level ? TEXT.heading(level) : TEXT.text}
        </Button>
      )}
      items={[
        { title: TEXT.text, onPress: () => on().setParagraph().run() },
        ...LEVELS.map((l) => ({ title: TEXT.headingOf(l), onPress: () => on().setHeading({ level: l }).run() })),
      ]}
    />
  );
}

/** What can be inserted beside words. */
function PartMenu({ editor, menu: Menu }: ToolProps) {
  const { roles } = useAbout();
  const on = () => editor.chain().focus();
  const slots = roles.filter((r) => r.act === 'sign' || r.act === 'desk').map((r) => r.id);
  const side = roles.find((r) => r.slot === 'every')?.side ?? roles[0]?.side ?? 'tenant';
  return (
    <Menu
      // After choosing, typing continues.
      returnTo={() => editor.commands.focus()}
      anchor={(open) => (
        <Button icon="plus" onPress={open} testID="open-parts">
          {TEXT.part}
        </Button>
      )}
      items={[
        {
          title: TEXT.signatures,
          testID: 'part-signatures',
          onPress: () =>
            on()
              .insertContent({ type: 'signatures', attrs: { slots, date: true } })
              .run(),
        },
        {
          title: TEXT.onlyWhenAConditionHolds,
          testID: 'part-when',
          onPress: () => on().wrapIn('when', { key: 'pets', is: 'there', value: '' }).run(),
        },
        {
          title: TEXT.onceForEach(eachWords(side)),
          testID: 'part-each',
          onPress: () => on().wrapIn('each', { side }).run(),
        },
        {
          title: TEXT.table,
          testID: 'part-table',
          onPress: () => on().insertTable({ rows: 3, cols: 2, withHeaderRow: true }).run(),
        },
        { title: TEXT.newPage, onPress: () => on().insertContent({ type: 'pageBreak' }).run() },
      ]}
    />
  );
}

function TableTools({ editor }: { editor: Editor }) {
  const on = () => editor.chain().focus();
  return (
    <Actions>
      <Button kind="quiet" onPress={() => on().addRowAfter().run()}>
        {TEXT.rowBelow}
      </Button>
      <Button kind="quiet" onPress={() => on().addColumnAfter().run()}>
        {TEXT.columnBeside}
      </Button>
      <Button kind="quiet" onPress={() => on().deleteRow().run()}>
        {TEXT.deleteRow}
      </Button>
      <Button kind="quiet" onPress={() => on().deleteColumn().run()}>
        {TEXT.deleteColumn}
      </Button>
      <Button kind="quiet" onPress={() => on().deleteTable().run()}>
        {TEXT.deleteTable}
      </Button>
    </Actions>
  );
}
