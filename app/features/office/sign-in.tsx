import { yupResolver } from '@hookform/resolvers/yup';
import { signInBody, type SignInBody } from '@gatepath/contract';
import { Redirect, router } from 'expo-router';
import { useForm } from 'react-hook-form';
import { useSession, useSignIn } from '../../api/hooks';
import { Brand } from '../../ui/brand';
import { Field } from '../../ui/field';
import { NotReady, isReady } from '../../ui/not-ready';
import { ActError, Button, Card, Page } from '../../ui/pieces';
import { Small, Title } from '../../ui/text';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

export function SignIn() {
  const session = useSession();
  const signIn = useSignIn();
  const { control, handleSubmit, setValue } = useForm<SignInBody>({
    resolver: yupResolver(signInBody),
    defaultValues: { email: '', password: '' },
  });
  if (!isReady(session)) return <NotReady query={session} what={TEXT.theSign} />;
  if (!session.data.firm) return <Redirect href="/setup" />;
  if (session.data.member) return <Redirect href="/today" />;
  const submit = handleSubmit((body) => signIn.mutate(body, { onSuccess: () => router.replace('/today') }));
  return (
    <Page max={440}>
      <Brand />
      <Title>
        {TEXT.signInTo}
        {session.data.firm.name}
      </Title>
      <Card gap={12}>
        <Field control={control} name="email" label={TEXT.email} keyboard="email-address" autoComplete="email" />
        <Field
          control={control}
          name="password"
          label={TEXT.password}
          secret
          autoComplete="current-password"
          onSubmit={() => void submit()}
        />
        <ActError of={signIn} />
        <Button kind="main" onPress={() => void submit()} busy={signIn.isPending} testID="sign-in">
          {TEXT.signIn}
        </Button>
        <Button kind="quiet" onPress={() => router.push('/forgot')} testID="forgot">
          {TEXT.forgotYourPassword}
        </Button>
      </Card>
      {session.data.demo?.signIns.length ? (
        <Card>
          <Small>{TEXT.thisIsTheDemoIts}</Small>
          <Stack gap={8}>
            {session.data.demo.signIns.map((s) => (
              <Button
                key={s.email}
                onPress={() => {
                  setValue('email', s.email);
                  setValue('password', s.password);
                  void submit();
                }}
              >
                {TEXT.signInAs(s.name)}
              </Button>
            ))}
          </Stack>
        </Card>
      ) : null}
    </Page>
  );
}
