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
  actions: (n) => count(n, TEXT.actThatStartsOrSends, TEXT.actsThatStartOrSend),
  attachments: (n) => count(n, TEXT.attachedFile),
  media: (n) => count(n, TEXT.filmSoundOrModel, TEXT.filmsSoundsOrModels),
  xfa: () => TEXT.aFormOnlyOneProgram,
  layers: (n) => count(n, TEXT.layerThatWasSwitchedOff, TEXT.layersThatWereSwitchedOff),
  notes: (n) => count(n, TEXT.noteOrMarkThatShows, TEXT.notesOrMarksThatShow),
  links: (n) => count(n, TEXT.linkThatLeadsOutOf, TEXT.linksThatLeadOutOf),
};

/** Returns "Left out: 2 scripts and 1 attached file."; null if nothing was. */
export function leftOutWords(leftOut: LeftOut[]): string | null {
  const parts = leftOut.flatMap(({ what, n }) => (what === 'signatures' || what === 'words' ? [] : [WORDS[what](n)]));
  return parts.length ? TEXT.leftOutOfWhatIs(listWords(parts)) : null;
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
