/** The desk of a draft: one bench, not a wizard. Panels beside each other, or behind tabs on a phone. */
import { router } from 'expo-router';
import { useEffect, useState } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import { Dialog, Portal } from 'react-native-paper';
import type { PacketView } from '@gatepath/contract';
import { count, firstName, listWords } from '@gatepath/core/text';
import { usePacketActions } from '../../api/hooks';
import { usePalette, useWide } from '../../ui/hooks';
import { Button, IconButton, Note, Trouble } from '../../ui/pieces';
import { Body, Small, Title } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { CheckPanel } from './check-panel';
import { LedgerPanel } from './ledger-panel';
import { PageStage } from './page-stage';
import { PathPanel } from './path-panel';
import { ToolBar } from './tool-bar';
import { useDesk, type Desk } from './use-desk';

type Tab = 'pages' | 'ledger' | 'path' | 'check';
const TABS: { value: Tab; label: string }[] = [
  { value: 'pages', label: 'Pages' },
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
  useUndoKeys(desk);
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
                flex: 1,
                minHeight: 44,
                flexDirection: 'row',
                gap: 5,
                borderRadius: 12,
                alignItems: 'center',
                justifyContent: 'center',
                backgroundColor: t.value === tab ? p.ink : 'transparent',
              }}
            >
              <Body style={{ color: t.value === tab ? p.paper : p.slate, fontFamily: FONT.bold }}>{t.label}</Body>
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
            <LedgerPanel desk={desk} />
          </ScrollView>
          <View style={{ flex: 1 }}>
            <PageStage desk={desk} />
            <ToolBar desk={desk} />
          </View>
          <ScrollView
            style={{ width: 330, flexGrow: 0, borderLeftWidth: 1, borderColor: p.rule }}
            contentContainerStyle={[pad, { gap: 20 }]}
          >
            <CheckPanel desk={desk} />
            <PathPanel desk={desk} />
          </ScrollView>
        </View>
      ) : tab === 'pages' ? (
        <View role="main" style={{ flex: 1 }}>
          <PageStage desk={desk} />
          <ToolBar desk={desk} />
        </View>
      ) : (
        <ScrollView role="main" contentContainerStyle={pad}>
          {tab === 'ledger' ? <LedgerPanel desk={desk} onGo={() => setTab('pages')} /> : null}
          {tab === 'path' ? <PathPanel desk={desk} /> : null}
          {tab === 'check' ? <CheckPanel desk={desk} onGo={() => setTab('pages')} /> : null}
        </ScrollView>
      )}
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

/** Ctrl or Cmd with Z and Shift-Z, unless somebody is typing. */
function useUndoKeys(desk: Desk): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement | null;
      if (target && /^(INPUT|TEXTAREA)$/.test(target.tagName)) return;
      if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== 'z') return;
      e.preventDefault();
      if (e.shiftKey) desk.redo();
      else desk.undo();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [desk]);
}
