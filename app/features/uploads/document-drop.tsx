/** Adding papers: a picker everywhere, and a place to drop files on a wide screen. */
import { useDropzone } from 'react-dropzone';
import { View } from 'react-native';
import { ProgressBar } from 'react-native-paper';
import { usePalette, useWide } from '../../ui/hooks';
import { Button, Note } from '../../ui/pieces';
import { Small } from '../../ui/text';
import { type useUploads } from './uploads';
import { PAPER_FILES } from '../../ui/paper-files';
import { TEXT } from './words';

export function DocumentDrop({ uploads, add, drop, retry }: ReturnType<typeof useUploads>) {
  const p = usePalette();
  const wide = useWide();
  const zone = useDropzone({ onDrop: (files) => void add(files), noClick: true, noKeyboard: true });
  return (
    <div {...zone.getRootProps()} style={{ display: 'flex', flexDirection: 'column', gap: 10 }}>
      <input {...zone.getInputProps()} data-testid="file-input" aria-label={TEXT.addPapers} accept={PAPER_FILES} />
      <View
        style={{
          borderWidth: 2,
          borderStyle: 'dashed',
          borderColor: zone.isDragActive ? p.brick : p.rule,
          backgroundColor: zone.isDragActive ? p.brickWash : 'transparent',
          borderRadius: 14,
          padding: wide ? 20 : 10,
          alignItems: 'center',
          gap: 6,
        }}
      >
        <Button icon="file-plus" onPress={zone.open} testID="add-documents">
          {TEXT.addPapers}
        </Button>
        {wide ? <Small>{TEXT.orDropThemHerePdf}</Small> : null}
      </View>
      {uploads.map((u) =>
        u.problem ? (
          <Note
            key={u.id}
            tone="stop"
            title={u.problem}
            testID="upload-problem"
            action={
              <View style={{ flexDirection: 'row' }}>
                <Button kind="quiet" onPress={() => void retry(u)}>
                  {TEXT.tryAgain}
                </Button>
                <Button kind="quiet" onPress={() => drop(u.id)}>
                  {TEXT.dismiss}
                </Button>
              </View>
            }
          />
        ) : (
          <View key={u.id} role="status" style={{ gap: 4 }}>
            <Small>{u.part < 1 ? TEXT.sending(u.name) : TEXT.checking(u.name)}</Small>
            <ProgressBar progress={u.part} color={p.brick} aria-label={TEXT.sendingOf(u.name)} />
          </View>
        ),
      )}
    </div>
  );
}
