/** A pattern for `like` that finds a text anywhere; its own signs mean themselves. */
export const anywhere = (text: string): string => `%${text.replace(/[\\%_]/g, '\\$&')}%`;
