-- Fills a job as years fill one: :readings readings, :holes holes, :photos photos.
do $$
declare
  full_job uuid := (select j.id from jobs j join clocks c on c.id = j.clock_id where c.name = 'Round-top drum clock' and j.closed_at is null);
begin
  insert into readings select (jsonb_populate_record(null::readings, to_jsonb(r) || jsonb_build_object('id', gen_random_uuid(), 'job_id', full_job,
      'at', r.at + n * interval '7 minutes'))).*
    from (select * from readings order by at limit 1) r, generate_series(1, :readings) n
    limit greatest(0, :readings - (select count(*) from readings where job_id = full_job));
  insert into holes select (jsonb_populate_record(null::holes, to_jsonb(h) || jsonb_build_object('id', gen_random_uuid(),
      'arbor', h.arbor || ' ' || n))).*
    from (select * from holes where job_id = full_job order by id limit 1) h, generate_series(1, :holes) n
    limit greatest(0, :holes - (select count(*) from holes where job_id = full_job));
  insert into photos select (jsonb_populate_record(null::photos, to_jsonb(p) || jsonb_build_object('id', gen_random_uuid(), 'job_id', full_job,
      'caption', 'Photo ' || n))).*
    from (select * from photos order by taken_at limit 1) p, generate_series(1, :photos) n
    limit greatest(0, :photos - (select count(*) from photos where job_id = full_job));
end $$;
analyze
