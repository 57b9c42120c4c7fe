/**
 * Notices: one paper to many households. What a table of households says, which rows are for the same home, and
 * whether a notice is early enough by the firm's rules. Must not know typesetting or sending.
 */
export { MOST_NOTICE_RULES, type NoticeRule, SAMPLE_NOTICE_RULES, termOf } from './rules';
export { homeFields, homeKey, type HomeRow, homesOf, MOST_HOMES, type Placed, sameHomes } from './rows';
