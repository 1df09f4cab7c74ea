-- Who owns the database $1, and who may not enter it, nor the cluster's own beside it. $2: the owner.
select format('alter database %I owner to %I', datname, $2::text) as said from pg_database
  where datname = $1 and pg_get_userbyid(datdba) <> $2
union all
select format('revoke all on database %I from public', datname) from pg_database
  where datname in ($1, 'postgres', 'template1')
    and (has_database_privilege('public', oid, 'connect') or has_database_privilege('public', oid, 'temporary'))
