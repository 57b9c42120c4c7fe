/** Members of the firm, one's own sessions, and ways back in, as hooks. */
import { useQuery } from '@tanstack/react-query';
import type { InviteBody, JoinBody, PasswordBody } from '@gatepath/contract';
import { useAct } from './act';
import { call } from './client';
import { useEnter } from './hooks';
import { keys } from './keys';

/** What an owner does with members; each act answers with the firm. */
export function useMembers() {
  const shows = keys.firm;
  return {
    invite: useAct((body: InviteBody) => call('invite', { body }), { shows }),
    withdraw: useAct((invitationId: string) => call('withdrawInvitation', { params: { invitationId } }), { shows }),
    disable: useAct(
      ({ memberId, toId }: { memberId: string; toId: string }) =>
        call('disableMember', { params: { memberId }, body: { toId } }),
      { shows },
    ),
    enable: useAct((memberId: string) => call('enableMember', { params: { memberId } }), { shows }),
  };
}

/** Where the member is signed in, and what they change about it. */
export function useOwnSessions() {
  const shows = keys.sessions;
  return {
    sessions: useQuery({ queryKey: shows, queryFn: () => call('sessions') }),
    end: useAct((sessionId: string) => call('endSession', { params: { sessionId } }), { shows }),
    password: useAct((body: PasswordBody) => call('changePassword', { body }), { shows }),
  };
}

/** Who is invited by a link. */
export const useInvitation = (token: string) =>
  useQuery({ queryKey: keys.invitation(token), queryFn: () => call('invitation', { params: { token } }) });

/** Becomes a member, and is signed in. */
export const useJoin = (token: string) => useEnter((body: JoinBody) => call('join', { params: { token }, body }));

/** Mails a link to choose a new password. */
export const useForgot = () => useAct((email: string) => call('forgotPassword', { body: { email } }));

/** Chooses a new password by the link that was mailed. */
export const useReset = (token: string) =>
  useEnter((password: string) => call('resetPassword', { params: { token }, body: { password } }));
