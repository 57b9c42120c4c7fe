import { yupResolver } from '@hookform/resolvers/yup';
import { setupBody, type SetupBody } from '@gatepath/contract';
import { Redirect, router } from 'expo-router';
import { useForm } from 'react-hook-form';
import { useSession, useSetup } from '../../api/hooks';
import { Brand } from '../../ui/brand';
import { Field, showFieldErrors } from '../../ui/field';
import { isReady, NotReady } from '../../ui/not-ready';
import { NewPasswordField } from '../../ui/new-password-field';
import { ActError, Button, Card, Page } from '../../ui/pieces';
import { Body, Title } from '../../ui/text';
import { ZoneField } from '../../ui/zone-field';
import { TEXT } from './words';

export function SetUp() {
  const session = useSession();
  const setup = useSetup();
  const { control, handleSubmit, setError } = useForm<SetupBody>({
    resolver: yupResolver(setupBody),
    defaultValues: {
      firmName: '',
      timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone || 'America/New_York',
      name: '',
      email: '',
      password: '',
      token: '',
    },
  });
  if (!isReady(session)) return <NotReady query={session} what={TEXT.theSetUp} />;
  if (session.data.firm && !setup.isPending) return <Redirect href="/today" />;
  const submit = handleSubmit((body) =>
    setup.mutate(body, {
      onSuccess: () => router.replace('/today'),
      onError: (e) => showFieldErrors(e, setError),
    }),
  );
  return (
    <Page max={480}>
      <Brand />
      <Title>{TEXT.setUpYourFirm}</Title>
      <Body>{TEXT.youDoThisOnceYou}</Body>
      <Card gap={12}>
        <Field control={control} name="firmName" label={TEXT.nameOfTheFirm} autoComplete="organization" />
        <ZoneField control={control} name="timeZone" />
        <Field control={control} name="name" label={TEXT.yourName} autoComplete="name" />
        <Field control={control} name="email" label={TEXT.yourEmail} keyboard="email-address" autoComplete="email" />
        <NewPasswordField control={control} onSubmit={() => void submit()} />
        {session.data.setupToken ? (
          <Field
            control={control}
            name="token"
            label={TEXT.setUpCode}
            hint={TEXT.theServerPrintsThisCode}
            onSubmit={() => void submit()}
          />
        ) : null}
        <ActError of={setup} />
        <Button kind="main" onPress={() => void submit()} busy={setup.isPending} testID="set-up">
          {TEXT.setUp}
        </Button>
      </Card>
    </Page>
  );
}
