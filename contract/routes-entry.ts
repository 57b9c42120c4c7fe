/** The whole contract: every route with its schemas and its problems, and the description that is made of them. */
export * from './routes';
export * from './route';
export * from './problems';
export * from './openapi';
