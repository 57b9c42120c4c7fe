/** The digital signatures that a paper came with: whose they are, and whether they are valid. */
import { useQuery } from '@tanstack/react-query';
import type { DocumentView, PaperSignature } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import { count } from '@gatepath/core/text';
import { keys } from '../../api/keys';
import { call } from '../../api/client';
import { usePalette } from '../../ui/hooks';
import { Small } from '../../ui/text';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

/** Returns whether a paper came with any. */
export const cameSigned = (doc: DocumentView) => doc.leftOut.some((l) => l.what === 'signatures');

export function PaperSignatures({ doc }: { doc: DocumentView }) {
  const p = usePalette();
  const asked = useQuery({
    queryKey: keys.signatures(doc.id),
    queryFn: () => call('paperSignatures', { params: { documentId: doc.id } }),
    staleTime: Infinity,
  });
  const found = asked.data;
  return (
    <Stack gap={4} testID="paper-signatures">
      {found?.signatures.map((s, i) => (
        <Small key={i} style={{ color: { holds: p.moss, broken: p.wine, unknown: p.ochre }[s.state] }}>
          {signatureWords(s)}
        </Small>
      ))}
      {found?.more ? <Small>{TEXT.wereNotLooked(count(found.more, TEXT.furtherSignature))}</Small> : null}
      {asked.isError ? <Small tone="warn">{asked.error.message}</Small> : null}
      <Small>{found?.signatures.length ? TEXT.signaturesAreValid : TEXT.thisFileCameWithDigital}</Small>
    </Stack>
  );
}

const STATES: Record<PaperSignature['state'], string> = {
  holds: TEXT.valid,
  broken: TEXT.notValid,
  unknown: TEXT.unclear,
};

/**
 * Returns "Digitally signed by Wren Alder, Sun, Nov 29. Valid. Northlock confirms the name. Decide whether you trust
 * this issuer."
 */
export function signatureWords(s: PaperSignature): string {
  const day = s.at ? `, ${shortDay(s.at.slice(0, 10))}` : '';
  const why = s.why ? `: ${s.why}` : '';
  const vouches =
    s.issuer === null ? '' : s.selfMade ? TEXT.noOneElseConfirmsThe : TEXT.confirmsTheNameWhetherTo(s.issuer);
  return TEXT.signedDigitallyBy(s.signer, day, STATES[s.state], why, s.state === 'broken' ? '' : vouches);
}
