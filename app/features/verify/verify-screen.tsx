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
      <Title>Verify a sealed copy</Title>
      <Body>Choose a sealed PDF. It is checked in the server’s memory and not stored. You need no account.</Body>
      <div {...drop.getRootProps()} data-testid="drop">
        <input {...drop.getInputProps()} aria-label="Choose a sealed PDF" data-testid="check-file" />
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
          <Body style={{ textAlign: 'center' }}>{drop.isDragActive ? 'Drop it here.' : 'Drop the PDF here, or'}</Body>
          <Button kind="main" busy={check.isPending} onPress={drop.open} testID="choose-file">
            Choose a file
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
          check.whole
            ? `“${check.fileName}” is whole. Nothing was changed since its last seal.`
            : `“${check.fileName}” is NOT whole: ${check.why}.`
        }
      >
        {check.whole && last
          ? `Sealed by ${last.signer}${last.selfMade ? ', with a self-made certificate' : ''}${check.ours ? '; this server made that seal' : ''}.`
          : 'Do not rely on it. Ask whoever sent it for the file again.'}
      </Note>
      {check.revisions.length ? (
        <Card>
          <Heading>{count(check.revisions.length, 'seal')}</Heading>
          <Small>Each seal covers the file up to its own end, so each earlier state can be cut out of it.</Small>
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
        <Strong>{`${r.n}. ${r.name || 'Unnamed'}`}</Strong>
        <Body>{r.reason}</Body>
        <Small>{`${at}${r.pages ? `, ${count(r.pages, 'page')}` : ''}, bytes 1 to ${r.end.toLocaleString('en-US')}`}</Small>
        {r.whole ? null : <Small style={{ color: p.wine }}>{`Not whole: ${r.why}`}</Small>}
        <Small style={{ fontSize: 12 }}>{`SHA-256 ${r.sha256}`}</Small>
      </View>
    </View>
  );
}
