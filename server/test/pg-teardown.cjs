/** Stops the PostgreSQL server of the tests and removes it. */
module.exports = async () => globalThis.__GATEPATH_PG__?.remove();
