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

/** Returns whether a member may change a form or kit, put it on the shelf, lock it and share it. */
export const mayMake = (s: Sharing, memberId: string): boolean => s.ownerId === memberId || among(s.makers, memberId);

/** Returns whether a member sees a form or kit and may make packets from it. A member who may change it also may. */
export const mayUse = (s: Sharing, memberId: string): boolean => mayMake(s, memberId) || among(s.users, memberId);
