export * from './types';
export * from './geometry';
export * from './ink';
export * from './placing';
export * from './draft';
export * from './ledger';
export * from './fit';
export * from './kinds';
