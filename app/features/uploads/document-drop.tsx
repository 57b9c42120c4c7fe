/** Adding papers: a picker everywhere, and a place to drop files on a wide screen. */
import { useDropzone } from 'react-dropzone';
import { ProgressBar } from 'react-native-paper';
import { usePalette, useWide } from '../../ui/hooks';
import { Button, Note } from '../../ui/pieces';
import { Small } from '../../ui/text';
import { type useUploads } from './uploads';
import { PAPER_FILES } from '../../ui/paper-files';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export function DocumentDrop({ uploads, add, drop, retry }: ReturnType<typeof useUploads>) {
  const p = usePalette();
  const wide = useWide();
  const zone = useDropzone({ onDrop: (files) => void add(files), noClick: true, noKeyboard: true });
  return (
    <div {...zone.getRootProps()} style={{ display: 'flex', flexDirection: 'column', gap: 10 }}>
      <input {...zone.getInputProps()} data-testid="file-input" aria-label={TEXT.addPapers} accept={PAPER_FILES} />
      <Stack
        gap={8}
        align="center"
        style={{
          borderWidth: 2,
          borderStyle: 'dashed',
          borderColor: zone.isDragActive ? p.brick : p.rule,
          backgroundColor: zone.isDragActive ? p.brickWash : 'transparent',
          borderRadius: 14,
          padding: wide ? 20 : 10,
        }}
      >
        <Button icon="file-plus" onPress={zone.open} testID="add-documents">
          {TEXT.addPapers}
        </Button>
        {wide ? <Small>{TEXT.orDropThemHerePdf}</Small> : null}
      </Stack>
      {uploads.map((u) =>
        u.problem ? (
          <Note
            key={u.id}
            tone="stop"
            title={u.problem}
            testID="upload-problem"
            action={
              <Row align="stretch">
                <Button kind="quiet" onPress={() => void retry(u)}>
                  {TEXT.tryAgain}
                </Button>
                <Button kind="quiet" onPress={() => drop(u.id)}>
                  {TEXT.dismiss}
                </Button>
              </Row>
            }
          />
        ) : (
          <Stack key={u.id} role="status" gap={4}>
            <Small>{u.part < 1 ? TEXT.sending(u.name) : TEXT.checking(u.name)}</Small>
            <ProgressBar progress={u.part} color={p.brick} aria-label={TEXT.sendingOf(u.name)} />
          </Stack>
        ),
      )}
    </div>
  );
}
