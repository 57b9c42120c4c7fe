/**
 * A change in words: the old words crossed out, the new ones underlined (and announced to screen readers), with the
 * words around both.
 */
import { Text } from 'react-native';
import { usePalette } from '../../ui/hooks';
import { Body } from '../../ui/text';

interface Changed {
  kind: 'struck' | 'put_in' | 'replaced' | 'moved';
  before: { text: string } | null;
  after: { text: string } | null;
  lead: string;
  tail: string;
}

/** Number of letters of a long passage that a list shows from its beginning and end. */
const LONG = 300;
const shortened = (text: string) => (text.length > LONG ? `${text.slice(0, 190)} […] ${text.slice(-90)}` : text);

export function ChangedText({ change: c, short }: { change: Changed; short?: boolean }) {
  const p = usePalette();
  const moved = c.kind === 'moved';
  const words = short ? shortened : (text: string) => text;
  const soft = { color: p.slate };
  return (
    <Body>
      {c.lead ? <Text style={soft}>{`… ${c.lead} `}</Text> : null}
      {c.before && !moved ? (
        <del style={{ color: p.wine, textDecoration: 'line-through' }}>{words(c.before.text)}</del>
      ) : null}
      {c.before && c.after && !moved ? ' ' : null}
      {c.after && !moved ? (
        <ins style={{ color: p.moss, fontWeight: 600, textDecoration: 'underline' }}>{words(c.after.text)}</ins>
      ) : null}
      {c.after && moved ? <Text>{words(c.after.text)}</Text> : null}
      {c.tail ? <Text style={soft}>{` ${c.tail} …`}</Text> : null}
    </Body>
  );
}
