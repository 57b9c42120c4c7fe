export * from './names';
export * from './sides';
export * from './email';
