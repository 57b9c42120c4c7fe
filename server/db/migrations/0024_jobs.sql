-- Background jobs in a table of our own. Ended jobs are deleted; what was given up is in work_failure.
create table job (
  id text primary key,
  -- The kind of job, and what it is about.
  name text not null,
  thing text not null,
  -- new: not begun; retry: begun before, and returned to the queue; running: leased by a server.
  state text not null check (state in ('new', 'retry', 'running')),
  tries integer not null default 0,
  most_tries integer not null,
  start_after timestamptz not null,
  -- The server that runs it, and when it last said so.
  runner text,
  leased_at timestamptz
);
-- Of jobs that wait for the same thing one is enough.
create unique index job_new on job (name, thing) where state = 'new';
create index job_due on job (name, start_after) where state <> 'running';
create index job_leased on job (leased_at) where state = 'running';

-- Jobs that waited in earlier versions' queues wait here. They were kept in a schema of a library.
do $$
begin
  if exists (select 1 from information_schema.tables where table_schema = 'pgboss' and table_name = 'job') then
    execute $move$
      insert into job (id, name, thing, state, tries, most_tries, start_after)
      select id::text, name, data->>'id', case when state::text = 'created' then 'new' else 'retry' end,
        retry_count, greatest(1, retry_limit + 1), start_after
      from pgboss.job
      where state::text in ('created', 'retry', 'active') and data->>'id' is not null
      on conflict do nothing
    $move$;
    drop schema pgboss cascade;
  end if;
end
$$;
