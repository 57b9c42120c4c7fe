/** Setting the hand once: typed in a script face, or drawn. */
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import Svg from 'react-native-svg';
import { Input } from '../../ui/input';
import type { SigningView } from '@gatepath/contract';
import { inkOf } from '@gatepath/core/inks';
import { showHand, type Drawing, type Hand, type ScriptFace } from '@gatepath/core/routing';
import { usePalette } from '../../ui/hooks';
import { Button, Card, Choice, Note, Page, Trouble } from '../../ui/pieces';
import { Body, Small, Strong, Title } from '../../ui/text';
import { Shown } from '../pages/fills';
import { FACE_WORDS, useHandFonts } from '../pages/hand-fonts';
import { DrawPad } from './draw-pad';
import { WhoIs } from './ceremony';
import type { Signing } from './use-signing';

export function HandStep({ signing, view, onDone }: { signing: Signing; view: SigningView; onDone: () => void }) {
  const p = usePalette();
  const was = view.hand;
  const [form, setForm] = useState<'typed' | 'drawn'>(was?.form ?? 'typed');
  const [name, setName] = useState(was?.form === 'typed' ? was.signature : view.me.name);
  const [initials, setInitials] = useState(was?.form === 'typed' ? was.initials : view.suggestedInitials);
  const [face, setFace] = useState<ScriptFace>(was?.form === 'typed' ? was.face : view.faces[0]!);
  const [signature, setSignature] = useState<Drawing | null>(was?.form === 'drawn' ? was.signature : null);
  const [short, setShort] = useState<Drawing | null>(was?.form === 'drawn' ? was.initials : null);
  const [problem, setProblem] = useState<string | null>(null);
  const color = inkOf(view.me.ink).color;

  const save = () => {
    setProblem(null);
    if (form === 'typed') {
      if (!name.trim() || !initials.trim()) return setProblem('Please write your name and your initials.');
      signing.setHand.mutate(
        { form: 'typed', face, signature: name.trim(), initials: initials.trim() },
        { onSuccess: onDone },
      );
      return;
    }
    if (!signature || !short)
      return setProblem(signature ? 'Please draw your initials too.' : 'Please draw your signature.');
    signing.setHand.mutate(
      { form: 'drawn', signature, initials: short, initialsText: view.suggestedInitials.slice(0, 8) },
      { onSuccess: onDone },
    );
  };
  return (
    <Page max={560}>
      <WhoIs view={view} />
      <Title>Your signature and initials</Title>
      <Body>Set them once here. Then you place each one yourself, with one touch.</Body>
      <Choice
        label="How to make your signature"
        value={form}
        options={[
          { value: 'typed', label: 'Type it' },
          { value: 'drawn', label: 'Draw it' },
        ]}
        onChange={setForm}
      />
      {form === 'typed' ? (
        <Card style={{ gap: 12 }}>
          <Input label="Your name" value={name} onChangeText={setName} testID="hand-name" />
          <Input
            label="Your initials"
            value={initials}
            onChangeText={setInitials}
            maxLength={8}
            testID="hand-initials"
          />
          <View role="radiogroup" aria-label="Writing" style={{ gap: 8 }}>
            {view.faces.map((f) => {
              const hand: Hand = { form: 'typed', face: f, signature: name || ' ', initials: initials || ' ' };
              const on = f === face;
              return (
                <Pressable
                  key={f}
                  role="radio"
                  aria-checked={on}
                  aria-label={`${FACE_WORDS[f]} writing`}
                  testID={`face-${f}`}
                  onPress={() => setFace(f)}
                  style={{
                    borderWidth: on ? 2.5 : 1.5,
                    borderColor: on ? p.brick : p.rule,
                    borderRadius: 12,
                    backgroundColor: '#FFFFFF',
                    flexDirection: 'row',
                    alignItems: 'center',
                    minHeight: 64,
                    paddingHorizontal: 10,
                  }}
                >
                  <Preview shows={showHand(hand, 'signature', name)} kind="signature" width={200} color={color} />
                  <View style={{ flex: 1 }} />
                  <Preview shows={showHand(hand, 'initials', name)} kind="initials" width={80} color={color} />
                </Pressable>
              );
            })}
          </View>
        </Card>
      ) : (
        <Card style={{ gap: 12 }}>
          <Strong>Signature</Strong>
          <DrawPad
            label="Draw your signature"
            height={150}
            value={signature}
            color={color}
            onChange={setSignature}
            testID="pad-signature"
          />
          <Strong>Initials</Strong>
          <DrawPad
            label="Draw your initials"
            height={120}
            value={short}
            color={color}
            onChange={setShort}
            testID="pad-initials"
          />
          <Small>Use a finger, a pen or the mouse. If drawing is hard, typing counts just the same.</Small>
        </Card>
      )}
      {problem ? <Note tone="warn" title={problem} /> : null}
      {signing.setHand.isError ? <Trouble error={signing.setHand.error} /> : null}
      <Button large kind="main" busy={signing.setHand.isPending} onPress={save} testID="save-hand">
        Use these
      </Button>
    </Page>
  );
}

export function Preview({
  shows,
  kind,
  width,
  color,
}: {
  shows: ReturnType<typeof showHand>;
  kind: 'signature' | 'initials';
  width: number;
  color: string;
}) {
  const height = 50;
  const ready = useHandFonts(shows.form === 'typed' ? [shows.face] : [], shows.form === 'typed' ? shows.text : '');
  if (!ready) return <View style={{ width, height }} />;
  return (
    <Svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden>
      <Shown shows={shows} kind={kind} rect={{ x: 2, y: 2, w: width - 4, h: height - 4 }} color={color} />
    </Svg>
  );
}
