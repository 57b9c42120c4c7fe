/** What the desk asks before acting: whether to send, and the words of a change. */
import { groupFindings } from '@gatepath/core/checks';
import { calledOf } from '@gatepath/core/packet';
import { useState } from 'react';
import { Dialog } from 'react-native-paper';
import { listWords } from '@gatepath/core/text';
import { usePacketActions } from '../../api/hooks';
import { Input } from '../../ui/input';
import { ActError, Button, Note } from '../../ui/pieces';
import { Body, Small } from '../../ui/text';
import { InNameOf } from './in-name-of';
import { useDesk, useDeskActs } from './use-desk';
import { DeskPortal } from './desk-portal';
import { TEXT } from './words';

export function SendDialog({ onClose }: { onClose: () => void }) {
  const { packetId, draft, warns, saved, version } = useDesk((s) => ({
    packetId: s.packet.id,
    draft: s.draft,
    warns: s.view.findings,
    saved: s.saving.state === 'saved',
    version: s.base.version,
  }));
  const { send } = usePacketActions(packetId);
  const [forId, setFor] = useState('');
  const first = draft.gates[0]?.partyIds.flatMap((id) => draft.parties.find((x) => x.id === id) ?? []) ?? [];
  return (
    <DeskPortal>
      <Dialog visible onDismiss={onClose} style={{ maxWidth: 520, alignSelf: 'center', width: '92%' }}>
        <Dialog.Title>{TEXT.sendPacket(draft.name)}</Dialog.Title>
        <Dialog.Content style={{ gap: 10 }}>
          <Body>{TEXT.askedNow(listWords(first.map((x) => x.name)), first.length)}</Body>
          {first.map((x) => (
            <Small key={x.id}>{`${calledOf(x)}: ${x.email}`}</Small>
          ))}
          {groupFindings(warns).map((g) => (
            <Note key={`${g.rule}${g.fix ?? ''}`} tone="warn" title={g.sentence} />
          ))}
          <InNameOf value={forId} onChange={setFor} />
          <ActError of={send} />
        </Dialog.Content>
        <Dialog.Actions style={{ gap: 8 }}>
          <Button onPress={onClose}>{TEXT.notYet}</Button>
          <Button
            kind="main"
            busy={send.isPending || !saved}
            onPress={() => send.mutate({ version, despiteWarnings: warns.length > 0, ...(forId ? { forId } : {}) })}
            testID="send-now"
          >
            {warns.length ? TEXT.sendAnyway : TEXT.send}
          </Button>
        </Dialog.Actions>
      </Dialog>
    </DeskPortal>
  );
}

/** Asks for the words to insert. */
export function InsertDialog({ at, onClose }: { at: { x: number; y: number }; onClose: () => void }) {
  const { insert } = useDeskActs();
  const [text, setText] = useState('');
  const put = () => {
    const words = text.trim();
    // A line of about eleven points: wide enough for the words, as far as the page allows.
    const lines = words.split('\n').length + Math.floor(words.length / 60);
    insert({ x: at.x, y: at.y - 7, w: Math.min(300, Math.max(60, words.length * 6)), h: 15 * lines }, words);
    onClose();
  };
  return (
    <DeskPortal>
      <Dialog visible onDismiss={onClose} style={{ maxWidth: 520, alignSelf: 'center', width: '92%' }}>
        <Dialog.Title>{TEXT.putWords}</Dialog.Title>
        <Dialog.Content>
          <Input label={TEXT.theWords} value={text} onChangeText={setText} multiline autoFocus testID="insert-text" />
        </Dialog.Content>
        <Dialog.Actions style={{ gap: 8 }}>
          <Button onPress={onClose}>{TEXT.cancel}</Button>
          <Button kind="main" disabled={!text.trim()} onPress={put} testID="insert-now">
            {TEXT.addTheWords}
          </Button>
        </Dialog.Actions>
      </Dialog>
    </DeskPortal>
  );
}
