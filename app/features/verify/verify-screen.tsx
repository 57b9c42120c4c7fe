/** Anybody's page: drop a sealed PDF and read whether it is whole, and who signed what when. */
import { useDropzone } from 'react-dropzone';
import { View } from 'react-native';
import { useMutation } from '@tanstack/react-query';
import type { CopyVerification } from '@gatepath/contract';
import { count } from '@gatepath/core/text';
import { uploadFile } from '../../api/client';
import { Brand } from '../../ui/brand';
import { usePalette } from '../../ui/hooks';
import { Icon } from '../../ui/icon';
import { Button, Card, Note, Page, Trouble } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { TEXT } from './words';

export function VerifyScreen() {
  const p = usePalette();
  const check = useMutation({
    mutationFn: (file: File) => uploadFile('check', file, {}),
  });
  const drop = useDropzone({
    multiple: false,
    noClick: true,
    noKeyboard: true,
    onDrop: ([file]) => file && check.mutate(file),
  });
  return (
    <Page max={760}>
      <Brand />
      <Title>{TEXT.verifyASealedCopy}</Title>
      <Body>{TEXT.chooseASealedPdf}</Body>
      <div {...drop.getRootProps()} data-testid="drop">
        <input {...drop.getInputProps()} aria-label={TEXT.chooseASealedPdf2} data-testid="check-file" />
        <View
          style={{
            borderWidth: 2,
            borderStyle: 'dashed',
            borderColor: drop.isDragActive ? p.brick : p.slate,
            borderRadius: 16,
            padding: 24,
            gap: 12,
            alignItems: 'center',
            backgroundColor: p.sheet,
          }}
        >
          <Body style={{ textAlign: 'center' }}>{drop.isDragActive ? TEXT.dropItHere : TEXT.dropThePdfHere}</Body>
          <Button kind="main" busy={check.isPending} onPress={drop.open} testID="choose-file">
            {TEXT.chooseAFile}
          </Button>
        </View>
      </div>
      {check.isError ? <Trouble error={check.error} /> : null}
      {check.data ? <Outcome check={check.data} /> : null}
    </Page>
  );
}

function Outcome({ check }: { check: CopyVerification }) {
  const last = check.revisions[check.revisions.length - 1];
  return (
    <>
      <Note
        tone={check.whole ? 'good' : 'stop'}
        testID="outcome"
        title={
          check.whole ? TEXT.isWholeNothingWasChanged(check.fileName) : TEXT.isNotWhole(check.fileName, check.why ?? '')
        }
      >
        {check.whole && last
          ? TEXT.sealedBy(
              last.signer ?? '',
              last.selfMade ? TEXT.withASelfMadeCertificate : '',
              check.ours ? '; this server made that seal' : '',
            )
          : TEXT.doNotRely}
      </Note>
      {check.revisions.length ? (
        <Card>
          <Heading>{count(check.revisions.length, 'seal')}</Heading>
          <Small>{TEXT.eachSealCoversTheFile}</Small>
          {check.revisions.map((r) => (
            <RevisionLine key={r.n} revision={r} />
          ))}
        </Card>
      ) : null}
    </>
  );
}

function RevisionLine({ revision: r }: { revision: CopyVerification['revisions'][number] }) {
  const p = usePalette();
  const at = r.at
    ? new Intl.DateTimeFormat('en-US', { dateStyle: 'medium', timeStyle: 'long', timeZone: 'utc' }).format(
        new Date(r.at),
      )
    : 'no time recorded';
  return (
    <View testID="revision" style={{ flexDirection: 'row', gap: 10, paddingVertical: 6 }}>
      <Icon name={r.whole ? 'check' : 'alert'} color={r.whole ? p.moss : p.wine} />
      <View style={{ flex: 1 }}>
        <Strong>{`${r.n}. ${r.name || TEXT.unnamed}`}</Strong>
        <Body>{r.reason}</Body>
        <Small>{TEXT.bytesTo(at, r.pages ? `, ${count(r.pages, 'page')}` : '', r.end.toLocaleString('en-US'))}</Small>
        {r.whole ? null : <Small style={{ color: p.wine }}>{TEXT.notWhole(r.why)}</Small>}
        <Small style={{ fontSize: 12 }}>{TEXT.sha(r.sha256)}</Small>
      </View>
    </View>
  );
}
