/** Members of the firm, one's own sessions, and ways back in, as hooks. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { FirmView, InviteBody, JoinBody, PasswordBody, SessionsView } from '@gatepath/contract';
import { call } from './client';
import { keys, useEnter } from './hooks';

const SESSIONS = ['sessions'];

/** What an owner does with members; each answers with the firm as it is then. */
export function useMembers() {
  const client = useQueryClient();
  const shows = { onSuccess: (firm: FirmView) => client.setQueryData(keys.firm, firm) };
  return {
    invite: useMutation({ mutationFn: (body: InviteBody) => call('invite', { body }), ...shows }),
    withdraw: useMutation({
      mutationFn: (invitationId: string) => call('withdrawInvitation', { params: { invitationId } }),
      ...shows,
    }),
    disable: useMutation({
      mutationFn: ({ memberId, toId }: { memberId: string; toId: string }) =>
        call('disableMember', { params: { memberId }, body: { toId } }),
      ...shows,
    }),
    enable: useMutation({
      mutationFn: (memberId: string) => call('enableMember', { params: { memberId } }),
      ...shows,
    }),
  };
}

/** Where the member is signed in, and what they change about it. */
export function useOwnSessions() {
  const client = useQueryClient();
  const shows = { onSuccess: (view: SessionsView) => client.setQueryData(SESSIONS, view) };
  return {
    sessions: useQuery({ queryKey: SESSIONS, queryFn: () => call('sessions') }),
    end: useMutation({ mutationFn: (sessionId: string) => call('endSession', { params: { sessionId } }), ...shows }),
    password: useMutation({ mutationFn: (body: PasswordBody) => call('changePassword', { body }), ...shows }),
  };
}

/** Who is invited by a link. */
export const useInvitation = (token: string) =>
  useQuery({ queryKey: ['invitation', token], queryFn: () => call('invitation', { params: { token } }) });

/** Becomes a member, and is signed in. */
export const useJoin = (token: string) => useEnter((body: JoinBody) => call('join', { params: { token }, body }));

/** Has a link mailed to choose a new password. */
export const useForgot = () =>
  useMutation({ mutationFn: (email: string) => call('forgotPassword', { body: { email } }) });

/** Chooses a new password by the link that was mailed. */
export const useReset = (token: string) =>
  useEnter((password: string) => call('resetPassword', { params: { token }, body: { password } }));
