/** Kinds of message that open an account: only their reader may read them, and owners, who pass them on where no mail server is set up. */
export const PRIVATE_KINDS: readonly string[] = ['invitation', 'new_password'];
