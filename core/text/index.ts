/**
 * Words about people and places, and what text from outside must be before it is used: names, sides of a deal, email
 * addresses, cleanliness, members' patterns. It knows nothing of packets; every layer may use it.
 */
export * from './names';
export * from './pattern';
export * from './sides';
export * from './email';
export * from './hygiene';
export * from './ends';
export * from './who';
