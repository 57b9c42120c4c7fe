/**
 * Kinds of messages that open an account. Only their reader may read them, and owners, who pass them on where no mail
 * server is configured.
 */
export const PRIVATE_KINDS: readonly string[] = ['invitation', 'new_password'];
