export * from './canonical';
export * from './chain';
