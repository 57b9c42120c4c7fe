/**
 * Notices: one paper to many households. What a table of households says, which rows are for the same home, and whether
 * a notice is early enough by the firm's own rules. It must not know how papers are set or sent.
 */
export * from './rules';
export * from './rows';
