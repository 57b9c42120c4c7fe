export * from './types';
export * from './reduce';
export * from './decide';
export * from './path';
export * from './words';
export * from './shown';
