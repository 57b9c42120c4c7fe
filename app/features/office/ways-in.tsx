/** Screens for accepting an invitation, asking for a password reset and choosing a new password. */
import { yupResolver } from '@hookform/resolvers/yup';
import { router, useLocalSearchParams } from 'expo-router';
import { useForm } from 'react-hook-form';
import {
  forgotBody,
  joinBody,
  resetBody,
  type ForgotBody,
  type InvitationView,
  type JoinBody,
  type ResetBody,
} from '@gatepath/contract';
import { useSession } from '../../api/hooks';
import { useForgot, useInvitation, useJoin, useReset } from '../../api/member-hooks';
import { Brand } from '../../ui/brand';
import { Field, showFieldErrors } from '../../ui/field';
import { isReady, NotReady } from '../../ui/not-ready';
import { NewPasswordField } from '../../ui/new-password-field';
import { ActError, Button, Card, Note, Page, Trouble } from '../../ui/pieces';
import { Body, Title } from '../../ui/text';
import { TEXT } from './words';

const toSignIn = () => router.replace('/sign-in');

/** An invitation to the firm. */
export function Join() {
  const { token } = useLocalSearchParams<{ token: string }>();
  const invitation = useInvitation(token);
  if (invitation.isError)
    return (
      <Page max={480}>
        <Brand />
        <Trouble error={invitation.error} />
        <Button kind="quiet" onPress={toSignIn}>
          {TEXT.goToSign}
        </Button>
      </Page>
    );
  if (!isReady(invitation)) return <NotReady query={invitation} what={TEXT.theInvitation} />;
  return <JoinForm token={token} invitation={invitation.data} />;
}

function JoinForm({ token, invitation }: { token: string; invitation: InvitationView }) {
  const join = useJoin(token);
  const { control, handleSubmit, setError } = useForm<JoinBody>({
    resolver: yupResolver(joinBody),
    defaultValues: { name: invitation.name, password: '' },
  });
  const submit = handleSubmit((body) =>
    join.mutate(body, {
      onSuccess: () => router.replace('/today'),
      onError: (e) => showFieldErrors(e, setError),
    }),
  );
  return (
    <Page max={480}>
      <Brand />
      <Title>{TEXT.joinFirm(invitation.firm)}</Title>
      <Body>{TEXT.youWillSign(invitation.email)}</Body>
      <Card gap={12}>
        <Field control={control} name="name" label={TEXT.yourName} autoComplete="name" />
        <NewPasswordField control={control} onSubmit={() => void submit()} />
        <ActError of={join} />
        <Button kind="main" onPress={() => void submit()} busy={join.isPending} testID="join">
          {TEXT.join}
        </Button>
      </Card>
    </Page>
  );
}

/** Asks for a link to choose a new password. */
export function Forgot() {
  const session = useSession();
  const forgot = useForgot();
  const inMailroom = session.data?.mail === 'mailroom';
  const { control, handleSubmit } = useForm<ForgotBody>({
    resolver: yupResolver(forgotBody),
    defaultValues: { email: '' },
  });
  const submit = handleSubmit(({ email }) => forgot.mutate(email));
  return (
    <Page max={440}>
      <Brand />
      <Title>{TEXT.resetYourPassword}</Title>
      {forgot.isSuccess ? (
        <Note tone="good" title={inMailroom ? TEXT.askAnOwner : TEXT.checkYourEmail}>
          {inMailroom ? TEXT.ifThisAddressBelongs : TEXT.ifThisAddressBelongs2}
        </Note>
      ) : (
        <Card gap={12}>
          <Field
            control={control}
            name="email"
            label={TEXT.email}
            keyboard="email-address"
            autoComplete="email"
            onSubmit={() => void submit()}
          />
          <ActError of={forgot} />
          <Button kind="main" onPress={() => void submit()} busy={forgot.isPending} testID="send-reset">
            {TEXT.emailMeALink}
          </Button>
        </Card>
      )}
      <Button kind="quiet" onPress={toSignIn}>
        {TEXT.backToSign}
      </Button>
    </Page>
  );
}

/** Chooses a new password by the link that was mailed. */
export function Reset() {
  const { token } = useLocalSearchParams<{ token: string }>();
  const reset = useReset(token);
  const { control, handleSubmit } = useForm<ResetBody>({
    resolver: yupResolver(resetBody),
    defaultValues: { password: '' },
  });
  const submit = handleSubmit(({ password }) => reset.mutate(password));
  return (
    <Page max={440}>
      <Brand />
      <Title>{TEXT.chooseANewPassword}</Title>
      {reset.isSuccess ? (
        <>
          <Note tone="good" title={TEXT.yourPasswordIsChangedYou} />
          <Button kind="main" onPress={toSignIn} testID="to-sign-in">
            {TEXT.signIn}
          </Button>
        </>
      ) : (
        <Card gap={12}>
          <NewPasswordField control={control} label={TEXT.newPassword} onSubmit={() => void submit()} />
          <ActError of={reset} />
          <Button kind="main" onPress={() => void submit()} busy={reset.isPending} testID="reset">
            {TEXT.changeThePassword}
          </Button>
        </Card>
      )}
    </Page>
  );
}
