/** Returns a `like` pattern that finds a text anywhere; its special characters are escaped. */
export const anywhere = (text: string): string => `%${text.replace(/[\\%_]/g, '\\$&')}%`;
