-- The roles $2 and $3 may enter the database $1.
select format('grant connect on database %I to %I', datname, role) as said from pg_database,
  (values ($2), ($3)) as of (role)
  where datname = $1 and not has_database_privilege(role, oid, 'connect')
