/** Adding a contract to open its deal: chosen everywhere, dropped on a wide screen. */
import { router } from 'expo-router';
import { useState, type ReactNode } from 'react';
import { useDropzone } from 'react-dropzone';
import { ProgressBar } from 'react-native-paper';
import { MAX_FILE } from '@gatepath/contract/limits';
import { uploadFile } from '../../api/client';
import { useAddIncoming, useIncomingList } from '../../api/incoming-hooks';
import { whenFree } from '../uploads/uploads';
import { usePalette, useWide } from '../../ui/hooks';
import { Stack } from '../../ui/layout';
import { PAPER_FILES } from '../../ui/paper-files';
import { ActError, Button, Card, Note } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';
import { TEXT } from './words';

/** Returns what adds a contract, and shows it once it is stored. */
function useContractDrop() {
  const [part, setPart] = useState(0);
  const [name, setName] = useState('');
  const [refused, setRefused] = useState('');
  const add = useAddIncoming((file) => whenFree(() => uploadFile('addIncoming', file, { onProgress: setPart })));
  const drop = (files: File[]) => {
    const [file] = files;
    if (!file || add.isPending) return;
    if (files.length > 1) return setRefused(TEXT.onlyOneAtATime);
    if (file.size > MAX_FILE) return setRefused(TEXT.isLargerThan50Mb(file.name));
    setRefused('');
    setPart(0);
    setName(file.name);
    add.mutate(file, { onSuccess: (view) => router.push(`/incoming/${view.id}`) });
  };
  const zone = useDropzone({ onDrop: drop, noClick: true, noKeyboard: true });
  return { zone, add, part, name, refused };
}

type Drop = ReturnType<typeof useContractDrop>;

/** The progress of sending, and why a file was refused. */
function Sending({ drop }: { drop: Drop }) {
  const p = usePalette();
  return (
    <>
      {drop.refused ? <Note tone="stop" title={drop.refused} testID="contract-refused" /> : null}
      {drop.add.isPending ? (
        <Stack role="status" gap={4}>
          <Small>{TEXT.sending(drop.name)}</Small>
          <ProgressBar progress={drop.part} color={p.brick} aria-label={TEXT.sendingOf(drop.name)} />
        </Stack>
      ) : null}
      <ActError of={drop.add} />
    </>
  );
}

function FileInput({ drop }: { drop: Drop }) {
  return (
    <input
      {...drop.zone.getInputProps()}
      data-testid="contract-input"
      aria-label={TEXT.contractFile}
      accept={PAPER_FILES}
    />
  );
}

/** The card of the screen for new deals, with the contracts that wait. */
export function ContractCard() {
  const drop = useContractDrop();
  const wide = useWide();
  const p = usePalette();
  const waiting = useIncomingList().data?.items ?? [];
  return (
    <div {...drop.zone.getRootProps()}>
      <FileInput drop={drop} />
      <Card
        gap={12}
        testID="from-contract"
        style={drop.zone.isDragActive ? { borderColor: p.brick, backgroundColor: p.brickWash } : undefined}
      >
        <Heading>{TEXT.openFromContract}</Heading>
        <Small>{TEXT.whatIsRead}</Small>
        <Button
          kind="main"
          icon="file-plus"
          onPress={drop.zone.open}
          busy={drop.add.isPending}
          testID="choose-contract"
        >
          {TEXT.chooseContract}
        </Button>
        {wide ? <Small>{TEXT.orDropItHere}</Small> : null}
        <Sending drop={drop} />
        {waiting.length ? (
          <Stack gap={4} testID="waiting-contracts">
            <Small>{TEXT.waiting}</Small>
            {waiting.map((w) => (
              <Button key={w.id} kind="quiet" fit onPress={() => router.push(`/incoming/${w.id}`)}>
                {TEXT.continueWith(w.name)}
              </Button>
            ))}
          </Stack>
        ) : null}
      </Card>
    </div>
  );
}

/** A screen on which a contract may be dropped anywhere; it is chosen from the screen for new deals. */
export function ContractZone({ children }: { children: ReactNode }) {
  const drop = useContractDrop();
  const p = usePalette();
  const { isDragActive } = drop.zone;
  return (
    <div
      {...drop.zone.getRootProps()}
      style={{ display: 'flex', flexDirection: 'column', flex: 1, minHeight: 0, position: 'relative' }}
    >
      {children}
      <Stack style={{ paddingHorizontal: 16 }}>
        <Sending drop={drop} />
      </Stack>
      {isDragActive ? (
        <Stack
          align="center"
          style={{
            position: 'absolute',
            inset: 12,
            borderWidth: 3,
            borderStyle: 'dashed',
            borderColor: p.brick,
            borderRadius: 18,
            backgroundColor: p.brickWash,
            justifyContent: 'center',
            pointerEvents: 'none',
          }}
        >
          <Strong>{TEXT.dropToOpen}</Strong>
        </Stack>
      ) : null}
    </div>
  );
}
