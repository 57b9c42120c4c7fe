/** Who of the firm may use items of the shelf, and who may change them. */

/** Members by their ids; null for everyone in the firm. */
export type Members = string[] | null;

/** Who owns, may use and may change an item of the shelf. */
export interface Sharing {
  /** The owner: may do everything with it, and transfer it. */
  ownerId: string;
  users: Members;
  makers: Members;
}

const among = (members: Members, id: string) => members === null || members.includes(id);

/** Whether a member may change it, put it on the shelf, lock and share it. */
export const mayMake = (s: Sharing, memberId: string): boolean => s.ownerId === memberId || among(s.makers, memberId);

/** Whether a member sees it and may make packets from it. Whoever may change it may. */
export const mayUse = (s: Sharing, memberId: string): boolean => mayMake(s, memberId) || among(s.users, memberId);
