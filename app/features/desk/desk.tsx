/** The desk of a draft: one bench, not a wizard. Panels beside each other, or behind tabs on a phone. */
import { Part } from '../../ui/boundary';
import { router } from 'expo-router';
import { useEffect, useState } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import { Dialog, Portal } from 'react-native-paper';
import type { PacketView } from '@gatepath/contract';
import { canAccept } from '@gatepath/core/packet';
import { count, firstName, listWords } from '@gatepath/core/text';
import { usePacketActions } from '../../api/hooks';
import { Input } from '../../ui/input';
import { usePalette, useWide } from '../../ui/hooks';
import { Button, IconButton, Note, Trouble } from '../../ui/pieces';
import { Body, Small, Title } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { CheckPanel } from './check-panel';
import { LedgerPanel } from './ledger-panel';
import { PageStage } from './page-stage';
import { MarkDetails } from './mark-details';
import { PathPanel } from './path-panel';
import { PreviewAs } from './preview';
import { PrintedPanel } from './printed-panel';
import { ToolBar } from './tool-bar';
import { useDesk, type Desk } from './use-desk';
import { itemAt } from '@gatepath/core/sure';

type Tab = 'pages' | 'printed' | 'ledger' | 'path' | 'check';
const TABS: { value: Tab; label: string }[] = [
  { value: 'pages', label: 'Pages' },
  { value: 'printed', label: 'Printed' },
  { value: 'ledger', label: 'Ledger' },
  { value: 'path', label: 'Path' },
  { value: 'check', label: 'Check' },
];

export function DeskScreen({ packet }: { packet: PacketView }) {
  const desk = useDesk(packet);
  const p = usePalette();
  const wide = useWide();
  const [tab, setTab] = useState<Tab>('pages');
  const [sending, setSending] = useState(false);
  const [details, setDetails] = useState(false);
  const [seeing, setSeeing] = useState(false);
  const [insertAt, setInsertAt] = useState<{ x: number; y: number } | null>(null);
  useDeskKeys(desk);
  const openPlaces = desk.view.proposals.filter(canAccept).length;
  const stage = (
    <>
      <PageStage desk={desk} onInsert={(x, y) => setInsertAt({ x, y })} />
      <ToolBar desk={desk} onDetails={() => setDetails(true)} />
    </>
  );
  const stops = desk.view.findings.filter((f) => f.severity === 'stops').length;
  const warns = desk.view.findings.length - stops;
  const send = () => (stops ? setTab('check') : setSending(true));
  const header = (
    <View
      role="banner"
      style={{
        backgroundColor: p.sheet,
        borderBottomWidth: 1,
        borderColor: p.rule,
        paddingHorizontal: wide ? 16 : 8,
        paddingTop: 6,
        paddingBottom: wide ? 6 : 0,
      }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
        <IconButton
          name="arrow-left"
          label="Back to the deal"
          onPress={() => router.navigate(`/deals/${packet.dealId}`)}
        />
        <View style={{ flex: 1 }}>
          <Title style={{ fontSize: wide ? 22 : 19, lineHeight: wide ? 28 : 24 }}>{desk.draft.name}</Title>
          <Small
            testID="saving"
            numberOfLines={2}
            style={desk.saving.state === 'refused' || desk.saving.state === 'offline' ? { color: p.wine } : null}
          >
            {`${packet.dealName} · ${desk.saving.sentence}`}
          </Small>
        </View>
        {wide ? (
          <Small style={{ color: stops ? p.wine : p.moss, marginRight: 10, fontFamily: FONT.bold }}>
            {[stops ? count(stops, 'stop') : 'No stops', warns ? count(warns, 'warning') : '']
              .filter(Boolean)
              .join(', ')}
          </Small>
        ) : null}
        <IconButton
          name="eye"
          label="See it as a party will"
          disabled={!desk.ready || !desk.draft.parties.length}
          onPress={() => setSeeing(true)}
          testID="see-as"
        />
        <Button kind="main" onPress={send} disabled={!desk.ready} testID="send">
          {wide ? 'Send through gate 1' : 'Send'}
        </Button>
      </View>
      {wide ? null : (
        <View role="tablist" style={{ flexDirection: 'row', gap: 2, paddingVertical: 4 }}>
          {TABS.map((t) => (
            <Pressable
              key={t.value}
              role="tab"
              aria-selected={t.value === tab}
              testID={`tab-${t.value}`}
              onPress={() => setTab(t.value)}
              style={{
                // As wide as its words, and a share of what is left: the last one has a number beside them.
                flexGrow: 1,
                paddingHorizontal: 6,
                minHeight: 44,
                flexDirection: 'row',
                gap: 4,
                borderRadius: 12,
                alignItems: 'center',
                justifyContent: 'center',
                backgroundColor: t.value === tab ? p.ink : 'transparent',
              }}
            >
              <Body style={{ color: t.value === tab ? p.paper : p.slate, fontFamily: FONT.bold, fontSize: 15 }}>
                {t.label}
              </Body>
              {t.value === 'printed' && openPlaces ? (
                <View style={{ width: 9, height: 9, borderRadius: 5, backgroundColor: p.brick }} />
              ) : null}
              {t.value === 'check' && desk.view.findings.length ? (
                <View style={{ backgroundColor: stops ? p.wine : p.ochre, borderRadius: 10, paddingHorizontal: 7 }}>
                  <Body style={{ color: p.sheet, fontFamily: FONT.bold, fontSize: 14, lineHeight: 20 }}>
                    {desk.view.findings.length}
                  </Body>
                </View>
              ) : null}
            </Pressable>
          ))}
        </View>
      )}
    </View>
  );
  const pad = { padding: 14, paddingBottom: 40 } as const;
  return (
    <View style={{ flex: 1, backgroundColor: p.paper }}>
      {header}
      {wide ? (
        <View role="main" style={{ flex: 1, flexDirection: 'row' }}>
          <ScrollView
            style={{ width: 320, flexGrow: 0, borderRightWidth: 1, borderColor: p.rule }}
            contentContainerStyle={pad}
          >
            <Part name="Page ledger">
              <LedgerPanel desk={desk} />
            </Part>
          </ScrollView>
          <View style={{ flex: 1 }}>{stage}</View>
          <ScrollView
            style={{ width: 330, flexGrow: 0, borderLeftWidth: 1, borderColor: p.rule }}
            contentContainerStyle={[pad, { gap: 20 }]}
          >
            {openPlaces ? (
              <Part name="Printed places">
                <PrintedPanel desk={desk} />
              </Part>
            ) : null}
            <Part name="Gate check">
              <CheckPanel desk={desk} />
            </Part>
            {openPlaces ? null : (
              <Part name="Printed places">
                <PrintedPanel desk={desk} />
              </Part>
            )}
            <Part name="Path">
              <PathPanel desk={desk} />
            </Part>
          </ScrollView>
        </View>
      ) : tab === 'pages' ? (
        <View role="main" style={{ flex: 1 }}>
          {stage}
        </View>
      ) : (
        <ScrollView role="main" contentContainerStyle={pad}>
          {tab === 'printed' ? (
            <Part name="Printed places">
              <PrintedPanel desk={desk} onGo={() => setTab('pages')} />
            </Part>
          ) : null}
          {tab === 'ledger' ? (
            <Part name="Page ledger">
              <LedgerPanel desk={desk} onGo={() => setTab('pages')} />
            </Part>
          ) : null}
          {tab === 'path' ? (
            <Part name="Path">
              <PathPanel desk={desk} />
            </Part>
          ) : null}
          {tab === 'check' ? (
            <Part name="Gate check">
              <CheckPanel desk={desk} onGo={() => setTab('pages')} />
            </Part>
          ) : null}
        </ScrollView>
      )}
      {details && desk.selected.length === 1 ? (
        <MarkDetails
          key={itemAt(desk.selected, 0).id}
          desk={desk}
          mark={itemAt(desk.selected, 0)}
          onClose={() => setDetails(false)}
        />
      ) : null}
      {seeing ? <PreviewAs desk={desk} onClose={() => setSeeing(false)} /> : null}
      {insertAt ? <InsertDialog desk={desk} at={insertAt} onClose={() => setInsertAt(null)} /> : null}
      {sending ? <SendDialog desk={desk} onClose={() => setSending(false)} /> : null}
    </View>
  );
}

function SendDialog({ desk, onClose }: { desk: Desk; onClose: () => void }) {
  const { send } = usePacketActions(desk.packet.id);
  const warns = desk.view.findings;
  const first = desk.draft.gates[0]?.partyIds.flatMap((id) => desk.draft.parties.find((x) => x.id === id) ?? []) ?? [];
  const saved = desk.saving.state === 'saved';
  return (
    <Portal>
      <Dialog visible onDismiss={onClose} style={{ maxWidth: 520, alignSelf: 'center', width: '92%' }}>
        <Dialog.Title>{`Send “${desk.draft.name}”?`}</Dialog.Title>
        <Dialog.Content style={{ gap: 10 }}>
          <Body>{`${listWords(first.map((x) => x.name))} ${first.length === 1 ? 'is' : 'are'} asked now; the others when it is their turn.`}</Body>
          {first.map((x) => (
            <Small key={x.id}>{`${firstName(x.name)}: ${x.email}`}</Small>
          ))}
          {warns.map((f, i) => (
            <Note key={i} tone="warn" title={f.sentence} />
          ))}
          {send.isError ? <Trouble error={send.error} /> : null}
        </Dialog.Content>
        <Dialog.Actions style={{ gap: 8 }}>
          <Button onPress={onClose}>Not yet</Button>
          <Button
            kind="main"
            busy={send.isPending || !saved}
            onPress={() => send.mutate({ version: desk.version, despiteWarnings: warns.length > 0 })}
            testID="send-now"
          >
            {warns.length ? 'Send anyway' : 'Send'}
          </Button>
        </Dialog.Actions>
      </Dialog>
    </Portal>
  );
}

/** The words a change puts in, asked for where they go. */
function InsertDialog({ desk, at, onClose }: { desk: Desk; at: { x: number; y: number }; onClose: () => void }) {
  const [text, setText] = useState('');
  const put = () => {
    const words = text.trim();
    // A line of about eleven points: wide enough for the words, as far as the page allows.
    const lines = words.split('\n').length + Math.floor(words.length / 60);
    desk.insert({ x: at.x, y: at.y - 7, w: Math.min(300, Math.max(60, words.length * 6)), h: 15 * lines }, words);
    onClose();
  };
  return (
    <Portal>
      <Dialog visible onDismiss={onClose} style={{ maxWidth: 520, alignSelf: 'center', width: '92%' }}>
        <Dialog.Title>Put words in</Dialog.Title>
        <Dialog.Content>
          <Input label="The words" value={text} onChangeText={setText} multiline autoFocus testID="insert-text" />
        </Dialog.Content>
        <Dialog.Actions style={{ gap: 8 }}>
          <Button onPress={onClose}>Cancel</Button>
          <Button kind="main" disabled={!text.trim()} onPress={put} testID="insert-now">
            Put them in
          </Button>
        </Dialog.Actions>
      </Dialog>
    </Portal>
  );
}

/**
 * The keyboard of the desk, unless somebody is typing: Ctrl or Cmd with Z and Shift-Z, C, V, A;
 * Escape lets go. Marks and the page have keys of their own.
 */
function useDeskKeys(desk: Desk): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.target instanceof HTMLElement && /^(INPUT|TEXTAREA)$/.test(e.target.tagName)) return;
      const key = e.key.toLowerCase();
      if (key === 'escape' && (desk.selected.length || desk.proposal || desk.redlineId)) {
        desk.select(null);
        return;
      }
      if (!(e.ctrlKey || e.metaKey)) return;
      if (key === 'z' && e.shiftKey) desk.redo();
      else if (key === 'z') desk.undo();
      else if (key === 'y') desk.redo();
      else if (key === 'c' && desk.selected.length) desk.copy();
      else if (key === 'v' && desk.copied.length) desk.paste();
      else if (key === 'a' && desk.at)
        desk.selectMany(
          desk.view.marks
            .filter((m) => m.documentId === desk.at!.documentId && m.page === desk.at!.page)
            .map((m) => m.id),
        );
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [desk]);
}
