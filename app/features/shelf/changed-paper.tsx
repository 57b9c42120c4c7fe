/** A changed paper of a form: where its marks are on it, with uncertain ones to confirm before it is accepted. */
import { router } from 'expo-router';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { View } from 'react-native';
import type { DocumentView } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { calledOf, KINDS, NOBODY, type Draft } from '@gatepath/core/packet';
import { editsOfAgain, type Again } from '@gatepath/core/shelf';
import { count } from '@gatepath/core/text';
import { keys } from '../../api/keys';
import { call, uploadFile } from '../../api/client';
import { useShelfItem } from '../../api/shelf-hooks';
import { useFilePick } from '../../ui/file-pick';
import { usePalette } from '../../ui/hooks';
import { Button, Card, Loading, Note, Trouble } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body, Heading, Small } from '../../ui/text';
import { PAPER_FILES } from '../../ui/paper-files';
import { AtRect } from '../pages/mark-box';
import { Sheet } from '../pages/sheet';
import { useDesk, useOnDesk } from '../desk/use-desk';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export function ChangedPaper() {
  const shelfId = useDesk((s) => s.packet.id);
  const [paper, setPaper] = useState<DocumentView | null>(null);
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const item = useShelfItem(shelfId);
  const bring = async (file: File) => {
    setError(null);
    setBusy(true);
    try {
      setPaper(await uploadFile('bringChanged', file, { params: { shelfId } }));
      await item.refetch();
    } catch (e) {
      setError(e);
    } finally {
      setBusy(false);
    }
  };
  const pick = useFilePick({
    accept: PAPER_FILES,
    label: TEXT.chooseTheChangedPaper,
    testID: 'changed-input',
    onFile: (file) => void bring(file),
  });
  const now = paper && item.data?.documents.find((d) => d.id === paper.id);
  return (
    <Card testID="changed-paper">
      <Heading>{TEXT.aChangedPaper}</Heading>
      {pick.field}
      {now?.status === 'failed' ? <Note tone="stop" title={now.problem ?? TEXT.itCouldNotBeRead} /> : null}
      {now?.status === 'ready' ? (
        <FoundAgain paper={now} onDone={() => setPaper(null)} />
      ) : now ? (
        <Loading what={TEXT.theChangedPaper} />
      ) : (
        <>
          <Small>{TEXT.theMarksArePlacedAgain}</Small>
          <Button icon="file-plus" onPress={pick.open} busy={busy} testID="bring-changed">
            {TEXT.addTheChangedPaper}
          </Button>
        </>
      )}
      {error ? <Trouble error={error} /> : null}
    </Card>
  );
}

const WORDS = { same: TEXT.whereItWas, moved: 'moved', doubtful: 'uncertain', lost: TEXT.notFound } as const;

function FoundAgain({ paper, onDone }: { paper: DocumentView; onDone: () => void }) {
  const { packet, draft, version, edit } = useOnDesk();
  const found = useQuery({
    queryKey: keys.foundAgain(packet.id, paper.id, version),
    queryFn: () => call('findAgain', { params: { shelfId: packet.id, documentId: paper.id } }),
    staleTime: Infinity,
  });
  const [turned, setTurned] = useState<Record<string, boolean>>({});
  if (found.isPending) return <Loading what={TEXT.thePlaces} />;
  if (found.isError) return <Trouble error={found.error} retry={() => void found.refetch()} />;
  const items = found.data.items;
  const was = draft.documents[0]?.id;
  const of = (state: Again['state']) => items.filter((a) => a.state === state);
  const isTaken = (a: Again) => a.state !== 'lost' && (turned[a.markId] ?? a.state !== 'doubtful');
  const take = () => {
    if (!was) return;
    const taken = new Set(items.filter(isTaken).map((a) => a.markId));
    edit(editsOfAgain(draft, was, paper.id, items, taken));
    onDone();
  };
  return (
    <Stack gap={8} testID="found-again">
      <Body>
        {TEXT.inPlaceMovedUncertainNot(
          count(of('same').length, 'mark'),
          of('moved').length,
          of('doubtful').length,
          of('lost').length,
        )}
      </Body>
      {[...of('doubtful'), ...of('moved')].map((a) => (
        <Place
          key={a.markId}
          paper={paper}
          again={a}
          on={isTaken(a)}
          onTurn={(on) => setTurned((was) => ({ ...was, [a.markId]: on }))}
        />
      ))}
      {of('lost').map((a) => (
        <Small key={a.markId}>{TEXT.theWordsAround(nameOf(draft, a))}</Small>
      ))}
      <Row gap={8} align="stretch">
        <Button kind="main" onPress={take} testID="take-changed">
          {TEXT.useTheNewPaper}
        </Button>
        <Button onPress={onDone}>{TEXT.keepTheOldPaper}</Button>
        {was ? (
          <Button kind="quiet" onPress={() => router.push(`/changes/${paper.id}/${was}`)} testID="what-changed">
            {TEXT.whatChanged}
          </Button>
        ) : null}
      </Row>
    </Stack>
  );
}

/** Returns the name of a mark: "Seller 1’s signature". */
function nameOf(draft: Draft, a: Again): string {
  const mark = draft.marks.find((m) => m.id === a.markId);
  const who = mark && mark.partyId !== NOBODY ? draft.parties.find((x) => x.id === mark.partyId) : undefined;
  const what = mark ? KINDS[mark.kind].word : 'mark';
  return who ? TEXT.s(calledOf(who), what) : `A ${what}`;
}

/** One mark with the part of the page it would be on. */
function Place({
  paper,
  again: a,
  on,
  onTurn,
}: {
  paper: DocumentView;
  again: Again;
  on: boolean;
  onTurn: (on: boolean) => void;
}) {
  const p = usePalette();
  const draft = useDesk((s) => s.draft);
  const [open, setOpen] = useState(a.state === 'doubtful');
  const page = paper.pages[a.page - 1];
  const width = 280;
  const scale = page ? width / page.width : 1;
  return (
    <Stack gap={4}>
      <Switch
        label={TEXT.page(nameOf(draft, a), a.page)}
        hint={WORDS[a.state]}
        on={on}
        onChange={onTurn}
        testID={`again-${a.state}`}
      />
      {open && page ? (
        <View style={{ width, height: 120, overflow: 'hidden', borderWidth: 1, borderColor: p.rule }}>
          <View style={{ marginTop: Math.min(0, 60 - (a.rect.y + a.rect.h / 2) * scale) }}>
            <Sheet
              page={page}
              url={urlOf('documentPage', { documentId: paper.id, page: a.page })}
              width={width}
              label={TEXT.pageOfTheChangedPaper(a.page)}
            >
              <AtRect rect={a.rect} scale={scale}>
                <View style={{ flex: 1, borderWidth: 2, borderColor: p.brick }} />
              </AtRect>
            </Sheet>
          </View>
        </View>
      ) : null}
      {a.state === 'moved' ? (
        <Button kind="quiet" onPress={() => setOpen(!open)} fit>
          {open ? TEXT.hideIt : TEXT.seeItOnThePage}
        </Button>
      ) : null}
    </Stack>
  );
}
