-- Indexes that let one row of a kind in only, apart from keys and constraints.
select i.indexname, i.indexdef from pg_indexes i join pg_class c on c.relname = i.indexname
join pg_index x on x.indexrelid = c.oid
where i.schemaname = 'public' and x.indisunique and not x.indisprimary
  and not exists (select 1 from pg_constraint k where k.conindid = c.oid)
