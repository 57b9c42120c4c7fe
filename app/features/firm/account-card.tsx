/** Shows the signed-in member's account: changing the password, and the devices that are signed in. */
import { yupResolver } from '@hookform/resolvers/yup';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { passwordBody, type PasswordBody, type SessionsView } from '@gatepath/contract';
import { useOwnSessions } from '../../api/member-hooks';
import { Field, showFieldErrors } from '../../ui/field';
import { NewPasswordField } from '../../ui/new-password-field';
import { ActError, Button, Card, Note } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';
import { when } from '../../ui/dates';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

type Session = SessionsView['sessions'][number];

/** Returns a browser in two words, as far as its name shows it. */
export function browserWords(agent: string): string {
  const names: [RegExp, string][] = [
    [/Edg\//, 'Edge'],
    [/Firefox\//, 'Firefox'],
    [/Chrome\/|Chromium\//, 'Chrome'],
    [/Safari\//, 'Safari'],
  ];
  const systems: [RegExp, string][] = [
    [/iPhone|iPad/, TEXT.iPhoneOrIPad],
    [/Android/, 'Android'],
    [/Windows/, 'Windows'],
    [/Mac OS X/, 'Mac'],
    [/Linux/, 'Linux'],
  ];
  const found = (list: [RegExp, string][]) => list.find(([pattern]) => pattern.test(agent))?.[1];
  const [name, system] = [found(names), found(systems)];
  return [name ?? 'A browser', system && TEXT.on(system)].filter(Boolean).join(' ');
}

export function AccountCard() {
  const { sessions, end, password } = useOwnSessions();
  const [changing, setChanging] = useState(false);
  const list = sessions.data?.sessions ?? [];
  return (
    <Card testID="account" gap={12}>
      <Heading>{TEXT.yourAccount}</Heading>
      {password.isSuccess && !changing ? <Note tone="good" title={TEXT.yourPasswordIsChangedYou} /> : null}
      {changing ? (
        <NewPassword password={password} onClose={() => setChanging(false)} />
      ) : (
        <Button onPress={() => setChanging(true)} fit testID="change-password">
          {TEXT.changeYourPassword}
        </Button>
      )}
      <Strong>{TEXT.whereYouAreSigned}</Strong>
      {list.map((s) => (
        <SessionRow key={s.id} session={s} onEnd={() => end.mutate(s.id)} />
      ))}
      <ActError of={end} />
    </Card>
  );
}

function SessionRow({ session: s, onEnd }: { session: Session; onEnd: () => void }) {
  const browser = browserWords(s.browser);
  return (
    <Stack gap={4} testID="session">
      <Small>{TEXT.since(browser, when(s.since), s.current ? TEXT.thisOne : '')}</Small>
      {s.current ? null : (
        <Button onPress={onEnd} fit label={TEXT.signOutSince(browser, when(s.since))}>
          {TEXT.signOutThere}
        </Button>
      )}
    </Stack>
  );
}

function NewPassword(o: { password: ReturnType<typeof useOwnSessions>['password']; onClose: () => void }) {
  const { control, handleSubmit, setError } = useForm<PasswordBody>({
    resolver: yupResolver(passwordBody),
    defaultValues: { current: '', password: '' },
  });
  const submit = handleSubmit((body) =>
    o.password.mutate(body, { onSuccess: o.onClose, onError: (e) => showFieldErrors(e, setError) }),
  );
  return (
    <Stack gap={8}>
      <Field control={control} name="current" label={TEXT.currentPassword} secret autoComplete="current-password" />
      <NewPasswordField control={control} label={TEXT.newPassword} onSubmit={() => void submit()} />
      <ActError of={o.password} />
      <Button kind="main" busy={o.password.isPending} onPress={() => void submit()} testID="save-password">
        {TEXT.changeThePassword}
      </Button>
      <Button kind="quiet" onPress={o.onClose}>
        {TEXT.cancel}
      </Button>
    </Stack>
  );
}
