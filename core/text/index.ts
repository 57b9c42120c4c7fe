export * from './names';
export * from './sides';
export * from './email';
export * from './hygiene';
export * from './ends';
