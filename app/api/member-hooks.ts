/** Members of the firm, own sessions, invitations and password resets, as hooks. */
import { useQuery } from '@tanstack/react-query';
import type { InviteBody, JoinBody, PasswordBody } from '@gatepath/contract';
import { useAct } from './act';
import { call } from './client';
import { useEnter } from './hooks';
import { keys } from './keys';

/** Returns the mutations by which an owner manages members; each answers with the firm. */
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

/** Queries and ends the member's own sessions. */
export function useOwnSessions() {
  const shows = keys.sessions;
  return {
    sessions: useQuery({ queryKey: shows, queryFn: () => call('sessions') }),
    end: useAct((sessionId: string) => call('endSession', { params: { sessionId } }), { shows }),
    password: useAct((body: PasswordBody) => call('changePassword', { body }), { shows }),
  };
}

/** Queries who is invited by a link. */
export const useInvitation = (token: string) =>
  useQuery({ queryKey: keys.invitation(token), queryFn: () => call('invitation', { params: { token } }) });

/** Accepts an invitation and signs in. */
export const useJoin = (token: string) => useEnter((body: JoinBody) => call('join', { params: { token }, body }));

/** Mails a link to choose a new password. */
export const useForgot = () => useAct((email: string) => call('forgotPassword', { body: { email } }));

/** Sets a new password by a mailed link. */
export const useReset = (token: string) =>
  useEnter((password: string) => call('resetPassword', { params: { token }, body: { password } }));
