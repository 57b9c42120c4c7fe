/** What a paper contained besides its pages, and that it was left out. */
import { Linking } from 'react-native';
import type { DocumentView, LeftOut, LeftOutKind } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { count, listWords } from '@gatepath/core/text';
import { Button } from '../../ui/pieces';
import { Small } from '../../ui/text';
import { cameSigned, PaperSignatures } from './paper-signatures';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

const WORDS: Record<Exclude<LeftOutKind, 'signatures' | 'words'>, (n: number) => string> = {
  scripts: (n) => count(n, 'script'),
  actions: (n) => count(n, 'act that starts or sends something', 'acts that start or send something'),
  attachments: (n) => count(n, 'attached file'),
  media: (n) => count(n, 'film, sound or model', 'films, sounds or models'),
  xfa: () => 'a form only one program can show',
  layers: (n) => count(n, 'layer that was switched off', 'layers that were switched off'),
  notes: (n) => count(n, 'note or mark that shows nothing', 'notes or marks that show nothing'),
  links: (n) => count(n, 'link that leads out of the file', 'links that lead out of the file'),
};

/** Returns "Left out: 2 scripts and 1 attached file."; null if nothing was. */
export function leftOutWords(leftOut: LeftOut[]): string | null {
  const parts = leftOut.flatMap(({ what, n }) => (what === 'signatures' || what === 'words' ? [] : [WORDS[what](n)]));
  return parts.length ? `Left out of what is shown and signed: ${listWords(parts)}.` : null;
}

export function LeftOutNote({ doc }: { doc: DocumentView }) {
  const signed = cameSigned(doc);
  const words = leftOutWords(doc.leftOut);
  const unread = doc.leftOut.find((l) => l.what === 'words')?.n ?? 0;
  if (!signed && !words && !unread) return null;
  return (
    <Stack testID="left-out" gap={4}>
      {signed ? <PaperSignatures doc={doc} /> : null}
      {words ? <Small>{words}</Small> : null}
      {unread ? <Small tone="warn">{TEXT.theWordsOfWereNot(count(unread, 'page'))}</Small> : null}
      <Button
        kind="quiet"
        icon="download"
        onPress={() => void Linking.openURL(urlOf('documentFile', { documentId: doc.id }))}
        fit
      >
        {TEXT.theFileAsItCame}
      </Button>
    </Stack>
  );
}
