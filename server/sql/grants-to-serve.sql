-- Rows are read and written; nothing is emptied, no table changed, no rule put aside, and the journal only grows.
-- $1: the role. Gives what is still to be said.
with of as (
  select c.oid, c.relname as name from pg_class c where c.relnamespace = 'public'::regnamespace and c.relkind = 'r'
)
select format('grant usage on schema public to %I', $1::text) as said
  where not has_schema_privilege($1, 'public', 'usage')
union all
select format('grant select, insert, update, delete on %I to %I', name, $1::text) from of
  where name <> 'journal'
    and not (has_table_privilege($1, oid, 'select') and has_table_privilege($1, oid, 'insert')
      and has_table_privilege($1, oid, 'update') and has_table_privilege($1, oid, 'delete'))
union all
select format('grant select, insert on %I to %I', name, $1::text) from of
  where name = 'journal' and not (has_table_privilege($1, oid, 'select') and has_table_privilege($1, oid, 'insert'))
union all
select format('revoke update, delete on %I from %I', name, $1::text) from of
  where name = 'journal' and (has_table_privilege($1, oid, 'update') or has_table_privilege($1, oid, 'delete'))
union all
select format('revoke execute on function %s from public', p.oid::regprocedure) from pg_proc p
  where p.pronamespace = 'public'::regnamespace and p.proname in ('settle_older', 'keep_newest', 'carry_cutters')
    and has_function_privilege('public', p.oid, 'execute')
