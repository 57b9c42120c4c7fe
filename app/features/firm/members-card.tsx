/** The firm's members: who they are, who is invited, and, for owners, inviting and disabling them. */
import { yupResolver } from '@hookform/resolvers/yup';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { inviteBody, MEMBER_ROLES, type FirmView, type InviteBody } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import { useMembers } from '../../api/member-hooks';
import { Field, showFieldErrors } from '../../ui/field';
import { ActError, Button, Card, Choice, Trouble } from '../../ui/pieces';
import { Body, Heading, Small, Strong } from '../../ui/text';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

type Member = FirmView['members'][number];

const ROLE_WORDS = { owner: TEXT.owner, member: TEXT.member } as const;

export function MembersCard({ firm, meId }: { firm: FirmView; meId: string }) {
  const [inviting, setInviting] = useState(false);
  const [leaving, setLeaving] = useState<string | null>(null);
  const acts = useMembers();
  const active = firm.members.filter((m) => !m.disabledAt);
  const isOwner = active.some((m) => m.id === meId && m.role === 'owner');
  const failed = [acts.withdraw, acts.enable].find((a) => a.isError);
  return (
    <Card testID="members" gap={12}>
      <Heading>{TEXT.members}</Heading>
      {firm.members.map((m) => (
        <MemberRow
          key={m.id}
          member={m}
          isMe={m.id === meId}
          onDisable={isOwner && !m.disabledAt && m.id !== meId && active.length > 1 ? () => setLeaving(m.id) : null}
          onEnable={isOwner && m.disabledAt ? () => acts.enable.mutate(m.id) : null}
        >
          {leaving === m.id ? (
            <HandOver member={m} others={active.filter((x) => x.id !== m.id)} onClose={() => setLeaving(null)} />
          ) : null}
        </MemberRow>
      ))}
      {firm.invitations.map((i) => (
        <Stack key={i.id} gap={4} testID={`invited-${i.email}`}>
          <Strong>{i.name}</Strong>
          <Small>
            {TEXT.invitedAsTheLinkExpires(
              i.email,
              i.role === 'owner' ? TEXT.anOwner : TEXT.aMember,
              shortDay(i.expiresAt.slice(0, 10)),
            )}
          </Small>
          <Button onPress={() => acts.withdraw.mutate(i.id)} fit>
            {TEXT.withdrawTheInvitation}
          </Button>
        </Stack>
      ))}
      {failed ? <Trouble error={failed.error} /> : null}
      {isOwner && inviting ? <Invite onClose={() => setInviting(false)} /> : null}
      {isOwner && !inviting ? (
        <Button onPress={() => setInviting(true)} fit testID="invite">
          {TEXT.inviteAMember}
        </Button>
      ) : null}
      {isOwner ? null : <Small>{TEXT.onlyAnOwnerCanInvite}</Small>}
      <Small>{TEXT.datesAreShown(firm.timeZone)}</Small>
    </Card>
  );
}

function MemberRow(o: {
  member: Member;
  isMe: boolean;
  onDisable: (() => void) | null;
  onEnable: (() => void) | null;
  children: React.ReactNode;
}) {
  const { member: m } = o;
  const left = m.disabledAt
    ? TEXT.disabled(shortDay(m.disabledAt.slice(0, 10)), m.handedTo ? TEXT.tookOver(m.handedTo) : '')
    : '';
  return (
    <Stack gap={4} testID={`member-${m.email}`}>
      <Strong>{o.isMe ? TEXT.nameOfYou(m.name) : m.name}</Strong>
      <Small>{`${left}${ROLE_WORDS[m.role]}, ${m.email}`}</Small>
      {o.onDisable && !o.children ? (
        <Button onPress={o.onDisable} fit label={TEXT.disableMember(m.name)} testID={`disable-${m.email}`}>
          {TEXT.disable}
        </Button>
      ) : null}
      {o.onEnable ? (
        <Button onPress={o.onEnable} fit label={TEXT.enableMember(m.name)}>
          {TEXT.enable}
        </Button>
      ) : null}
      {o.children}
    </Stack>
  );
}

/** Asks who takes over before a member is disabled. */
function HandOver({ member, others, onClose }: { member: Member; others: Member[]; onClose: () => void }) {
  const { disable } = useMembers();
  const [toId, setToId] = useState(others[0]?.id ?? '');
  const to = others.find((m) => m.id === toId);
  return (
    <Stack gap={8}>
      <Body>{TEXT.isSignedOutEverywhere(member.name)}</Body>
      <Choice
        label={TEXT.whoTakesOver}
        value={toId}
        options={others.map((m) => ({ value: m.id, label: m.name }))}
        onChange={setToId}
      />
      <ActError of={disable} />
      <Button
        kind="main"
        busy={disable.isPending}
        onPress={() => disable.mutate({ memberId: member.id, toId }, { onSuccess: onClose })}
        testID="hand-over"
      >
        {TEXT.disableHandOver(member.name, to?.name ?? '')}
      </Button>
      <Button kind="quiet" onPress={onClose}>
        {TEXT.cancel}
      </Button>
    </Stack>
  );
}

function Invite({ onClose }: { onClose: () => void }) {
  const { invite } = useMembers();
  const { control, handleSubmit, setError, setValue, watch } = useForm<InviteBody>({
    resolver: yupResolver(inviteBody),
    defaultValues: { name: '', email: '', role: 'member' },
  });
  const submit = handleSubmit((body) =>
    invite.mutate(body, { onSuccess: onClose, onError: (e) => showFieldErrors(e, setError) }),
  );
  return (
    <Stack gap={8}>
      <Field control={control} name="name" label={TEXT.name} />
      <Field
        control={control}
        name="email"
        label={TEXT.email}
        keyboard="email-address"
        onSubmit={() => void submit()}
      />
      <Choice
        label={TEXT.role}
        value={watch('role')}
        options={MEMBER_ROLES.map((value) => ({ value, label: ROLE_WORDS[value] }))}
        onChange={(role) => setValue('role', role)}
      />
      <Small>{TEXT.theyGetALink}</Small>
      <ActError of={invite} />
      <Button kind="main" busy={invite.isPending} onPress={() => void submit()} testID="send-invitation">
        {TEXT.sendTheInvitation}
      </Button>
      <Button kind="quiet" onPress={onClose}>
        {TEXT.cancel}
      </Button>
    </Stack>
  );
}
