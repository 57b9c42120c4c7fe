/** Who of the firm may use what is on the shelf, and who may make and change it. */

/** Members by their ids; null for everybody of the firm. */
export type Members = string[] | null;

export interface Sharing {
  /** Who answers for it: may always do everything with it, and hand it over. */
  ownerId: string;
  users: Members;
  makers: Members;
}

const among = (members: Members, id: string) => members === null || members.includes(id);

/** Whether a member may change it, put it on the shelf, lock and share it. */
export const mayMake = (s: Sharing, memberId: string): boolean => s.ownerId === memberId || among(s.makers, memberId);

/** Whether a member sees it and may make packets of it; whoever may make it may. */
export const mayUse = (s: Sharing, memberId: string): boolean => mayMake(s, memberId) || among(s.users, memberId);
