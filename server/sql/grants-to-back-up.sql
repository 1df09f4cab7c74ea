-- All is read, and nothing else. $1: the role. Gives what is still to be said.
select format('grant usage on schema %I to %I', n.nspname, $1::text) as said from pg_namespace n
  where n.nspname in ('public', 'drizzle') and not has_schema_privilege($1, n.oid, 'usage')
union all
select format('grant select on %s to %I', c.oid::regclass, $1::text) from pg_class c
  join pg_namespace n on n.oid = c.relnamespace
  where n.nspname in ('public', 'drizzle') and c.relkind = 'r' and not has_table_privilege($1, c.oid, 'select')
