-- What is not the owner's ($1) yet. What an extension brought stays the administrator's; a sequence goes with its table.
select format('alter schema %I owner to %I', nspname, $1::text) as said from pg_namespace
  where nspname in ('public', 'drizzle') and pg_get_userbyid(nspowner) <> $1
union all
select format('alter table %I.%I owner to %I', schemaname, tablename, $1::text) from pg_tables
  where schemaname in ('public', 'drizzle') and tableowner <> $1
union all
select format('alter function %s owner to %I', p.oid::regprocedure, $1::text) from pg_proc p
  where p.pronamespace = 'public'::regnamespace and pg_get_userbyid(p.proowner) <> $1
    and not exists (select 1 from pg_depend d where d.objid = p.oid and d.deptype = 'e')
