/** Nodes of a form's text: tags, places, conditional and repeated parts, signatures. */
import { Extension, mergeAttributes, Node } from '@tiptap/core';
import { NodeViewContent, NodeViewWrapper, ReactNodeViewRenderer, type NodeViewProps } from '@tiptap/react';
import type { CSSProperties, ReactNode } from 'react';
import { upperFirst } from '@gatepath/core/text';
import { WHENS, type When } from '@gatepath/core/writing';
import { usePalette } from '../../ui/hooks';
import { FONT } from '../../ui/theme';
import { eachWords, EACH_SIDES, roleName, tagLabel, useAbout } from './about';
import { TEXT } from './words';

const text = (value: unknown) => (typeof value === 'string' ? value : '');

/** A chip in the line. */
function Chip({ children, dashed, on }: { children: ReactNode; dashed?: boolean; on: boolean }) {
  const p = usePalette();
  return (
    <span
      style={{
        border: `1.5px ${dashed ? 'dashed' : 'solid'} ${on ? p.brick : p.slate}`,
        borderRadius: 7,
        padding: '1px 7px',
        fontFamily: FONT.text,
        fontSize: 14,
        background: on ? p.brickWash : p.paper,
        color: p.ink,
        whiteSpace: 'nowrap',
      }}
    >
      {children}
    </span>
  );
}

function TagView({ node, selected }: NodeViewProps) {
  const about = useAbout();
  return (
    <NodeViewWrapper as="span" data-testid="tag-chip">
      <Chip on={selected}>{tagLabel(about, text(node.attrs['key']))}</Chip>
    </NodeViewWrapper>
  );
}

const KIND_WORDS: Record<string, string> = {
  text: 'writes',
  number: 'writes a number',
  money: 'writes a sum',
  date: 'writes a day',
  initials: 'initials',
  tick: 'ticks',
};

function PlaceView({ node, selected }: NodeViewProps) {
  const about = useAbout();
  const { slot, kind, label } = node.attrs;
  const who = roleName(about, text(slot));
  return (
    <NodeViewWrapper as="span" data-testid="place-chip">
      <Chip on={selected} dashed>
        {`${who} ${KIND_WORDS[text(kind)] ?? 'fills'}${label ? `: ${text(label)}` : ''}`}
      </Chip>
    </NodeViewWrapper>
  );
}

const frame = (color: string): CSSProperties => ({
  borderLeft: `4px solid ${color}`,
  paddingLeft: 12,
  margin: '10px 0',
});
const HEAD: CSSProperties = { display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 8, fontFamily: FONT.text };

function Pick<T extends string>(props: {
  label: string;
  value: T;
  options: { value: T; label: string }[];
  onChange: (value: T) => void;
}) {
  const p = usePalette();
  return (
    <select
      aria-label={props.label}
      value={props.value}
      onChange={(e) => {
        const chosen = props.options.find((o) => o.value === e.target.value);
        if (chosen) props.onChange(chosen.value);
      }}
      style={{
        minHeight: 44,
        fontFamily: FONT.text,
        fontSize: 15,
        color: p.ink,
        background: p.sheet,
        border: `1px solid ${p.slate}`,
        borderRadius: 8,
        padding: '0 8px',
        maxWidth: 240,
      }}
    >
      {props.options.map((o) => (
        <option key={o.value} value={o.value}>
          {o.label}
        </option>
      ))}
    </select>
  );
}

/** Removes the frame around a part; its words stay. */
function Unwrap({ label, word, editor, getPos, node }: At & { label: string; word: string }) {
  const p = usePalette();
  return (
    <button
      type="button"
      aria-label={label}
      onClick={() => {
        const at = getPos();
        if (at === undefined) return;
        editor
          .chain()
          .command(({ tr }) => {
            tr.replaceWith(at, at + node.nodeSize, node.content);
            return true;
          })
          .run();
      }}
      style={{ minHeight: 44, border: 0, background: 'none', color: p.brick, fontFamily: FONT.text, fontSize: 15 }}
    >
      {word}
    </button>
  );
}
interface At {
  editor: NodeViewProps['editor'];
  getPos: NodeViewProps['getPos'];
  node: NodeViewProps['node'];
}

const WHEN_WORDS: Record<When, string> = {
  there: TEXT.isYesOrIsKnown,
  not: TEXT.isNoOrIsNot,
  equals: 'is',
};

function WhenView({ node, updateAttributes, editor, getPos }: NodeViewProps) {
  const p = usePalette();
  const about = useAbout();
  const key = text(node.attrs['key']);
  const is = WHENS.find((w) => w === node.attrs['is']) ?? 'there';
  const def = about.tags.find((t) => t.key === key);
  const ways = WHENS.filter((w) => w !== 'equals' || def?.options);
  return (
    <NodeViewWrapper style={frame(p.ochre)} data-testid="when-part">
      <div contentEditable={false} style={{ ...HEAD, color: p.ochre }}>
        <span>{TEXT.onlyWhere}</span>
        <Pick
          label={TEXT.whatItDepends}
          value={key}
          options={about.tags.map((t) => ({ value: t.key, label: t.label }))}
          onChange={(k) => updateAttributes({ key: k, is: is === 'equals' ? 'there' : is, value: '' })}
        />
        <Pick
          label={TEXT.inWhichCase}
          value={is}
          options={ways.map((w) => ({ value: w, label: WHEN_WORDS[w] }))}
          onChange={(w) => updateAttributes({ is: w, value: w === 'equals' ? (def?.options?.[0]?.value ?? '') : '' })}
        />
        {is === 'equals' && def?.options ? (
          <Pick
            label={TEXT.which}
            value={text(node.attrs['value'])}
            options={def.options}
            onChange={(value) => updateAttributes({ value })}
          />
        ) : null}
        <Unwrap label={TEXT.alwaysShowThisPart} word={TEXT.always} editor={editor} getPos={getPos} node={node} />
      </div>
      <NodeViewContent />
    </NodeViewWrapper>
  );
}

function EachView({ node, updateAttributes, editor, getPos }: NodeViewProps) {
  const p = usePalette();
  const side = EACH_SIDES.find((s) => s === node.attrs['side']) ?? 'tenant';
  return (
    <NodeViewWrapper style={frame(p.moss)} data-testid="each-part">
      <div contentEditable={false} style={{ ...HEAD, color: p.moss }}>
        <span>{TEXT.onceFor}</span>
        <Pick
          label={TEXT.forWhomItIsRepeated}
          value={side}
          options={EACH_SIDES.map((s) => ({ value: s, label: eachWords(s) }))}
          onChange={(s) => updateAttributes({ side: s })}
        />
        <Unwrap label={TEXT.showThisPartOnce} word={TEXT.onlyOnce} editor={editor} getPos={getPos} node={node} />
      </div>
      <NodeViewContent />
    </NodeViewWrapper>
  );
}

function SignaturesView({ node, updateAttributes, selected }: NodeViewProps) {
  const p = usePalette();
  const about = useAbout();
  const list: unknown = node.attrs['slots'];
  const slots = Array.isArray(list) ? list.map(text) : [];
  const signing = about.roles.filter((r) => r.act === 'sign' || r.act === 'desk');
  const turn = (id: string) =>
    updateAttributes({
      slots: slots.includes(id)
        ? slots.filter((s) => s !== id)
        : signing.map((r) => r.id).filter((s) => s === id || slots.includes(s)),
    });
  return (
    <NodeViewWrapper
      data-testid="signatures-part"
      style={{ border: `1.5px solid ${selected ? p.brick : p.rule}`, borderRadius: 10, padding: 12, margin: '12px 0' }}
    >
      <div contentEditable={false} style={{ fontFamily: FONT.text, color: p.ink }}>
        <strong>{TEXT.signaturesKeptOnOnePage}</strong>
        {signing.map((r) => (
          <label key={r.id} style={{ display: 'flex', alignItems: 'center', gap: 10, minHeight: 44 }}>
            <input
              type="checkbox"
              checked={slots.includes(r.id)}
              onChange={() => turn(r.id)}
              style={{ width: 22, height: 22, accentColor: p.ink }}
            />
            <span>{r.name}</span>
          </label>
        ))}
        {signing.length ? null : <p style={{ color: p.ochre }}>{TEXT.noOneSignsYetAdd}</p>}
        <label style={{ display: 'flex', alignItems: 'center', gap: 10, minHeight: 44 }}>
          <input
            type="checkbox"
            checked={node.attrs['date'] !== false}
            onChange={(e) => updateAttributes({ date: e.target.checked })}
            style={{ width: 22, height: 22, accentColor: p.ink }}
          />
          <span>{TEXT.withTheDateSigned}</span>
        </label>
      </div>
    </NodeViewWrapper>
  );
}

function BreakView({ selected }: NodeViewProps) {
  const p = usePalette();
  return (
    <NodeViewWrapper data-testid="page-break">
      <div
        contentEditable={false}
        style={{
          borderTop: `2px dashed ${selected ? p.brick : p.slate}`,
          color: p.slate,
          textAlign: 'center',
          fontFamily: FONT.text,
          fontSize: 13,
          margin: '14px 0',
        }}
      >
        {TEXT.aNewPageBeginsHere}
      </div>
    </NodeViewWrapper>
  );
}

/** Returns a node with a name and attributes that are stored as they are. */
function own(
  name: string,
  o: {
    inline?: boolean;
    content?: string;
    attributes: Record<string, unknown>;
    view: (props: NodeViewProps) => ReactNode;
  },
) {
  return Node.create({
    name,
    group: o.inline ? 'inline' : 'block',
    inline: o.inline ?? false,
    atom: !o.content,
    ...(o.content ? { content: o.content, defining: true } : {}),
    addAttributes: () =>
      Object.fromEntries(
        Object.entries(o.attributes).map(([key, value]) => [
          key,
          {
            default: value,
            // Copied and pasted within a form it stays what it was.
            parseHTML: (e: HTMLElement) => parsed(e.getAttribute(`data-${key}`), value),
            renderHTML: (attrs: Record<string, unknown>) => ({ [`data-${key}`]: JSON.stringify(attrs[key]) }),
          },
        ]),
      ),
    parseHTML: () => [{ tag: `[data-part="${name}"]` }],
    renderHTML: ({ HTMLAttributes }) => {
      const attrs = mergeAttributes(HTMLAttributes, { 'data-part': name });
      return o.content ? ['div', attrs, 0] : [o.inline ? 'span' : 'div', attrs];
    },
    addNodeView: () => ReactNodeViewRenderer(o.view),
  });
}

function parsed(value: string | null, otherwise: unknown): unknown {
  try {
    return value === null ? otherwise : JSON.parse(value);
  } catch {
    return otherwise;
  }
}

export const PARTS = [
  own('tag', { inline: true, attributes: { key: 'address' }, view: TagView }),
  own('place', {
    inline: true,
    attributes: { kind: 'text', slot: '', label: '', required: true, wide: false },
    view: PlaceView,
  }),
  own('when', { content: 'block+', attributes: { key: 'pets', is: 'there', value: '' }, view: WhenView }),
  own('each', { content: 'block+', attributes: { side: 'tenant' }, view: EachView }),
  own('signatures', { attributes: { slots: [], date: true }, view: SignaturesView }),
  own('pageBreak', { attributes: {}, view: BreakView }),
  // Where a line is.
  Extension.create({
    name: 'align',
    addGlobalAttributes: () => [
      {
        types: ['paragraph'],
        attributes: {
          align: {
            default: null,
            parseHTML: (e) => e.style.textAlign || null,
            renderHTML: ({ align }) => (align ? { style: `text-align: ${String(align)}` } : {}),
          },
        },
      },
    ],
  }),
];

/** Returns "Landlord 1 writes a sum". */
export const placeWords = (kind: string) => upperFirst(KIND_WORDS[kind] ?? 'fills');
