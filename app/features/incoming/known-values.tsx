/** An offer at the desk to fill blanks with the deal's names, address, amounts and days. */
import { router } from 'expo-router';
import { useMemo, useState } from 'react';
import { knownBlanks, type KnownBlank } from '@gatepath/core/abstract';
import {
  NOBODY,
  type DocumentFacts,
  type Draft,
  type DraftEdit,
  type Mark,
  type Proposal,
} from '@gatepath/core/packet';
import type { PacketView } from '@gatepath/contract';
import { count, lowerFirst, listWords, SIDE_WORDS, SIDES } from '@gatepath/core/text';
import { newId } from '../../api/client';
import { useDeal } from '../../api/hooks';
import { Actions, Stack } from '../../ui/layout';
import { Button, Note } from '../../ui/pieces';
import { Small } from '../../ui/text';
import { TEXT } from './words';

/** What the offer needs of the desk. */
interface On {
  packet: PacketView;
  draft: Draft;
  view: { documents: DocumentFacts[]; proposals: Proposal[] };
  edit: (edits: DraftEdit[]) => void;
}

/** A blank of the packet with its proposal. */
interface Known extends KnownBlank {
  proposal: Proposal;
}

/** Returns the open blanks of a packet that ask for something its deal can know. */
function useKnown(on: On): Known[] {
  const deal = useDeal(on.packet.dealId).data;
  const { documents, proposals } = on.view;
  return useMemo(() => {
    if (!deal) return [];
    return documents.flatMap((document) => {
      const printed = proposals.flatMap((p) =>
        p.documentId === document.id && p.place ? [{ proposal: p, place: p.place }] : [],
      );
      const isOpen = (n: number) => printed[n]?.proposal.state === 'open';
      const places = printed.map((p) => p.place);
      return knownBlanks(document.pages, places, isOpen, deal).flatMap((k): Known[] => {
        const found = printed[k.place];
        return found ? [{ ...k, proposal: found.proposal }] : [];
      });
    });
  }, [deal, documents, proposals]);
}

/** Returns the mark that puts a value in its blank: fixed text, or one that the person it is for may correct. */
function markFor({ proposal, value, label }: Known, partyId: string | null): Mark {
  const { documentId, page, rect, id: placeId } = proposal;
  const base = { id: newId(), documentId, page, rect, placeId, value: value ?? '' };
  return partyId
    ? { ...base, kind: 'text', partyId, required: true, label }
    : { ...base, kind: 'label', partyId: NOBODY, required: false };
}

/** Returns what a blank is called in a list: "price", "seller". */
function nameOf({ field, label }: Known): string {
  const side = SIDES.find((s) => field === `side.${s}`);
  return lowerFirst(side ? SIDE_WORDS[side] : label);
}

const unique = (known: readonly Known[]) => listWords([...new Set(known.map(nameOf))]);

/** The offer to fill in what the deal knows, and what it does not know yet. */
export function KnownValues({ on }: { on: On }) {
  const known = useKnown(on);
  const [done, setDone] = useState<DraftEdit[] | null>(null);
  const ready = known.filter((k) => k.value !== null);
  const missing = known.filter((k) => k.value === null);
  const signer = on.draft.parties.find((p) => p.act === 'sign')?.id ?? null;
  const fill = (correctable: boolean) => {
    const edits = ready.map((k): DraftEdit => {
      const partyId = correctable ? (k.proposal.partyId ?? signer) : null;
      return { op: 'put', list: 'marks', item: markFor(k, partyId) };
    });
    on.edit(edits);
    setDone(edits.flatMap((e): DraftEdit[] => (e.op === 'put' ? [{ op: 'drop', list: 'marks', id: e.item.id }] : [])));
  };
  const undo = () => {
    const there = new Set(on.draft.marks.map((m) => m.id));
    on.edit((done ?? []).filter((e) => e.op === 'drop' && there.has(e.id)));
    setDone(null);
  };
  if (done)
    return (
      <Note
        tone="good"
        title={TEXT.filledFromDeal(count(done.length, TEXT.blank))}
        testID="known-filled"
        action={
          <Button kind="quiet" fit onPress={undo} testID="unfill-known">
            {TEXT.removeThemAgain}
          </Button>
        }
      >
        {missing.length ? <Missing on={on} missing={missing} /> : null}
      </Note>
    );
  if (!known.length) return null;
  return (
    <Note
      tone="plain"
      title={ready.length ? TEXT.dealKnows(count(ready.length, TEXT.blank)) : TEXT.dealKnowsNone}
      testID="known-values"
    >
      <Stack gap={8}>
        {ready.length ? <Small>{TEXT.theyAre(unique(ready))}</Small> : null}
        {ready.length ? (
          <Actions>
            <Button onPress={() => fill(false)} testID="fill-known">
              {TEXT.fillThemIn}
            </Button>
            {signer ? (
              <Button kind="quiet" onPress={() => fill(true)} testID="fill-correctable">
                {TEXT.fillCorrectable}
              </Button>
            ) : null}
          </Actions>
        ) : null}
        {missing.length ? <Missing on={on} missing={missing} /> : null}
      </Stack>
    </Note>
  );
}

/** What a blank asks for and the deal does not know. */
function Missing({ on, missing }: { on: On; missing: readonly Known[] }) {
  return (
    <Stack gap={4}>
      <Small tone="warn">{TEXT.notKnownYet(unique(missing))}</Small>
      <Button kind="quiet" fit onPress={() => router.push(`/deals/${on.packet.dealId}`)}>
        {TEXT.setItInTheDeal}
      </Button>
    </Stack>
  );
}
