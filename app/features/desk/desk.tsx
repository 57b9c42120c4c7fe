/** The desk of a draft. Panels are side by side, or behind tabs on a phone. */
import { type ReactNode, useEffect, useState } from 'react';
import { ScrollView, View } from 'react-native';
import type { PacketView } from '@gatepath/contract';
import { canAccept } from '@gatepath/core/packet';
import { Part } from '../../ui/boundary';
import { usePalette, useWide } from '../../ui/hooks';
import { TabbedView, TabPanel } from '../../ui/tabs';
import { CheckPanel } from './check-panel';
import { InsertDialog, SendDialog } from './desk-dialogs';
import { DeskHeader, type DeskTab, TABS, findingsOf } from './desk-header';
import { LedgerPanel } from './ledger-panel';
import { MarkDetails } from './mark-details';
import { PageStage } from './page-stage';
import { PathPanel } from './path-panel';
import { PreviewAs } from './preview';
import { RememberedCards } from '../memory/remembered-card';
import { PrintedPanel } from './printed-panel';
import { ToolBar } from './tool-bar';
import { useDesk, type Bench, type Desk } from './use-desk';
import { Row, Stack } from '../../ui/layout';
import { TEXT } from './words';

interface DeskProps {
  packet: PacketView;
  bench?: Bench;
  /** What the desk is for in the end, instead of sending a packet: the button in its header. */
  finish?: (desk: Desk) => ReactNode;
  /** Instead of the path. */
  PathPart?: Panel;
}

export function DeskScreen({ packet, bench, finish, PathPart = PathPanel }: DeskProps) {
  const desk = useDesk(packet, bench);
  const p = usePalette();
  const wide = useWide();
  const [tab, setTab] = useState<DeskTab>('pages');
  const [open, setOpen] = useState<'send' | 'details' | 'preview' | null>(null);
  const [insertAt, setInsertAt] = useState<{ x: number; y: number } | null>(null);
  useDeskKeys(desk);
  const close = () => setOpen(null);
  const send = () => (findingsOf(desk).stops ? setTab('check') : setOpen('send'));
  const sendAfterEdit = useAfterEdit(send);
  const [mark, ...others] = desk.selected;
  const stage = (
    <>
      {wide || desk.bench.what === 'form' ? null : <Remembered desk={desk} onSend={sendAfterEdit} />}
      <PageStage desk={desk} onInsert={(x, y) => setInsertAt({ x, y })} />
      <ToolBar desk={desk} onDetails={() => setOpen('details')} />
    </>
  );
  const choose = (value: string) => setTab(TABS.find((t) => t.value === value)?.value ?? 'pages');
  return (
    <View style={{ flex: 1, backgroundColor: p.paper }}>
      <TabbedView value={tab} onChange={choose}>
        <DeskHeader desk={desk} tab={tab} onSee={() => setOpen('preview')} finish={finish?.(desk)} onSend={send} />
        {wide ? (
          <WideDesk desk={desk} PathPart={PathPart} onSend={sendAfterEdit}>
            {stage}
          </WideDesk>
        ) : (
          <Stack role="main" grow>
            {TABS.map(({ value }) => (
              <TabPanel key={value} value={value} style={value === tab ? { flex: 1 } : undefined}>
                {value === 'pages' ? (
                  stage
                ) : (
                  <ScrollView contentContainerStyle={PAD}>
                    <PanelOf tab={value} desk={desk} PathPart={PathPart} onGo={() => setTab('pages')} />
                  </ScrollView>
                )}
              </TabPanel>
            ))}
          </Stack>
        )}
      </TabbedView>
      {open === 'details' && mark && !others.length ? (
        <MarkDetails key={mark.id} desk={desk} mark={mark} onClose={close} />
      ) : null}
      {open === 'preview' ? <PreviewAs desk={desk} onClose={close} /> : null}
      {insertAt ? <InsertDialog desk={desk} at={insertAt} onClose={() => setInsertAt(null)} /> : null}
      {open === 'send' ? <SendDialog desk={desk} onClose={close} /> : null}
    </View>
  );
}

/** Returns a function that calls `act` after the next render, when the draft contains the edits made in the same event. */
function useAfterEdit(act: () => void): () => void {
  const [waits, setWaits] = useState(false);
  useEffect(() => {
    if (!waits) return;
    setWaits(false);
    act();
  }, [waits, act]);
  return () => setWaits(true);
}

/** What papers had on them the last time, over the page on a phone: nobody should have to look for it. */
const Remembered = ({ desk, onSend }: { desk: Desk; onSend: () => void }) => (
  <View style={{ paddingHorizontal: 10 }}>
    <RememberedCards on={desk} only={desk.at?.documentId ?? ''} onSend={onSend} />
  </View>
);

const PAD = { padding: 14, paddingBottom: 40 } as const;

/** The ledger on the left, the page in the middle, what to look at first on the right. */
interface WideDeskProps {
  desk: Desk;
  PathPart: Panel;
  onSend: () => void;
  children: ReactNode;
}

function WideDesk({ desk, PathPart, onSend, children }: WideDeskProps) {
  const p = usePalette();
  const hasOpenPlaces = desk.view.proposals.some(canAccept);
  const right: Exclude<DeskTab, 'pages'>[] = hasOpenPlaces
    ? ['printed', 'check', 'path']
    : ['check', 'printed', 'path'];
  return (
    <Row role="main" align="stretch" grow>
      <ScrollView
        style={{ width: 320, flexGrow: 0, borderRightWidth: 1, borderColor: p.rule }}
        contentContainerStyle={PAD}
      >
        <PanelOf tab="ledger" desk={desk} PathPart={PathPart} />
      </ScrollView>
      <Stack grow>{children}</Stack>
      <ScrollView
        style={{ width: 330, flexGrow: 0, borderLeftWidth: 1, borderColor: p.rule }}
        contentContainerStyle={[PAD, { gap: 20 }]}
      >
        {right.map((tab) => (
          <PanelOf key={tab} tab={tab} desk={desk} PathPart={PathPart} onSend={onSend} />
        ))}
      </ScrollView>
    </Row>
  );
}

type Panel = (props: { desk: Desk; onGo?: () => void; onSend?: () => void }) => ReactNode;

const PANELS: Record<Exclude<DeskTab, 'pages' | 'path'>, { name: string; Panel: Panel }> = {
  printed: { name: TEXT.printedPlaces, Panel: PrintedPanel },
  ledger: { name: TEXT.pageLedger, Panel: LedgerPanel },
  check: { name: TEXT.gateCheck, Panel: CheckPanel },
};

interface PanelOfProps {
  tab: Exclude<DeskTab, 'pages'>;
  desk: Desk;
  PathPart: Panel;
  /** Shows the pages, if they are behind a tab. */
  onGo?: () => void;
  /** Opens the send dialog after the edits made in the same event. */
  onSend?: () => void;
}

function PanelOf({ tab, desk, PathPart, onGo, onSend }: PanelOfProps) {
  const { name, Panel } = tab === 'path' ? { name: TEXT.path, Panel: PathPart } : PANELS[tab];
  return (
    <Part name={name}>
      <Panel desk={desk} onGo={onGo} onSend={onSend} />
    </Part>
  );
}

/**
 * Handles the keyboard of the desk, except while somebody is typing: Ctrl or Cmd with Z, Shift-Z, C, V and A; Escape
 * clears the selection. Marks and the page handle keys of their own.
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
